<?php

declare(strict_types=1);

namespace App\Api;

use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;

/** A file that came with a request, in the field "file". */
final readonly class Upload
{
    public const MOST_BYTES = 64 * 1024 * 1024;
    private const LONGEST_NAME = 200;

    private function __construct(public string $name, public string $path)
    {
    }

    /** @throws UploadFault */
    public static function of(Request $request): self
    {
        $upload = $request->files->get('file');
        if (!$upload instanceof UploadedFile || !$upload->isValid()) {
            $isTooLarge = $upload instanceof UploadedFile
                && \in_array($upload->getError(), [\UPLOAD_ERR_INI_SIZE, \UPLOAD_ERR_FORM_SIZE], true);
            throw $isTooLarge ? UploadFault::tooLarge() : UploadFault::missing();
        }
        if ($upload->getSize() > self::MOST_BYTES) {
            throw UploadFault::tooLarge();
        }
        $name = preg_replace('/[\x00-\x1F\x7F\/\\\\]/', '_', mb_scrub($upload->getClientOriginalName())) ?? '';
        $name = mb_substr($name, -self::LONGEST_NAME);

        return new self('' === $name ? 'file' : $name, $upload->getPathname());
    }

    public function bytes(): string
    {
        return (string) file_get_contents($this->path);
    }
}
