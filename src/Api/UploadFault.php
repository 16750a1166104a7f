<?php

declare(strict_types=1);

namespace App\Api;

final class UploadFault extends \RuntimeException implements Refusal
{
    private function __construct(private readonly int $status, private readonly string $title, string $detail)
    {
        parent::__construct($detail);
    }

    public static function missing(): self
    {
        return new self(400, 'No file arrived.', 'Send one file in the field "file"; it may have been cut off on the way.');
    }

    public static function tooLarge(): self
    {
        $most = intdiv(Upload::MOST_BYTES, 1024 * 1024);

        return new self(413, 'The file is too large.', \sprintf('Files up to %d MB can be read.', $most));
    }

    public function status(): int
    {
        return $this->status;
    }

    public function title(): string
    {
        return $this->title;
    }

    public function more(): array
    {
        return 400 === $this->status ? ['errors' => [['pointer' => '/file', 'detail' => 'is missing']]] : [];
    }
}
