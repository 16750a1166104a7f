<?php

declare(strict_types=1);

namespace App\Intake;

use App\Api\Upload;
use Mensura\Fault\UnusableInput;

/** The files in a zip, as far as they can be field files. */
final class Archive
{
    private const MOST_FILES = 200;
    private const MOST_BYTES = 256 * 1024 * 1024;

    /**
     * @return iterable<string, string> contents by name
     *
     * @throws UnusableInput when it cannot be opened, or holds too much
     */
    public static function files(string $path, string $name): iterable
    {
        $zip = new \ZipArchive();
        if (true !== $zip->open($path, \ZipArchive::RDONLY)) {
            throw new UnusableInput($name, 'cannot be opened as a zip; is it whole?');
        }
        try {
            $wanted = self::wanted($zip, $name);
            foreach ($wanted as $index => $file) {
                $bytes = $zip->getFromIndex($index);
                if (false === $bytes) {
                    throw new UnusableInput($name, \sprintf('%s in it cannot be read; is it encrypted?', $file));
                }
                yield $file => $bytes;
            }
        } finally {
            $zip->close();
        }
    }

    /** @return array<int, string> names by place, of everything that is not a folder or an operating system's own */
    private static function wanted(\ZipArchive $zip, string $name): array
    {
        $wanted = [];
        $bytes = 0;
        for ($i = 0; $i < $zip->numFiles; ++$i) {
            $entry = $zip->statIndex($i);
            $file = basename(strtr((string) ($entry['name'] ?? ''), '\\', '/'));
            if (false === $entry
                || str_ends_with($entry['name'], '/')
                || str_starts_with($file, '.')
                || str_contains($entry['name'], '__MACOSX')
            ) {
                continue;
            }
            if ($entry['size'] > Upload::MOST_BYTES) {
                throw new UnusableInput($name, \sprintf('%s in it is larger than %d MB', $file, Upload::MOST_BYTES >> 20));
            }
            $bytes += $entry['size'];
            $wanted[$i] = mb_substr((string) preg_replace('/[\x00-\x1F\x7F]/', '_', mb_scrub($file)), -200);
        }
        if ([] === $wanted) {
            throw new UnusableInput($name, 'holds no file');
        }
        if (\count($wanted) > self::MOST_FILES || $bytes > self::MOST_BYTES) {
            $words = 'holds %d files of %d MB together; at most %d files of %d MB are taken at once';
            throw new UnusableInput($name, \sprintf($words, \count($wanted), $bytes >> 20, self::MOST_FILES, self::MOST_BYTES >> 20));
        }

        return $wanted;
    }
}
