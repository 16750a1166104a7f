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

    /** Endings of what lies beside a .shp. */
    private const BESIDE = 'shx|dbf|prj|cpg|sbn|sbx|qix|shp\.xml';

    /** The first second a zip can say, 1980-01-01. */
    private const NO_TIME = 315532800;

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
            $contents = static function (int $index) use ($zip, $wanted, $name): string {
                $bytes = $zip->getFromIndex($index);

                return false !== $bytes ? $bytes
                    : throw new UnusableInput($name, \sprintf('%s in it cannot be read; is it encrypted?', $wanted[$index]));
            };
            $shapefiles = self::shapefiles($zip, array_keys($wanted));
            foreach ($shapefiles as $indices) {
                $parts = [];
                foreach ($indices as $index) {
                    $parts[$wanted[$index]] = $contents($index);
                }
                yield pathinfo($wanted[$indices[0]], \PATHINFO_FILENAME).'.zip' => self::zipped($parts);
            }
            foreach (array_diff(array_keys($wanted), ...$shapefiles) as $index) {
                yield $wanted[$index] => $contents($index);
            }
        } finally {
            $zip->close();
        }
    }

    /**
     * What belongs to one shapefile is one file: neither part of it says anything alone.
     *
     * @param list<int> $indices
     *
     * @return list<non-empty-list<int>> places of the parts, the .shp first
     */
    private static function shapefiles(\ZipArchive $zip, array $indices): array
    {
        $stem = static fn (int $i): string => strtolower((string) preg_replace('/\.[^.\/]*$/', '', (string) $zip->getNameIndex($i)));
        $is = static fn (int $i, string $endings): bool => 1 === preg_match("/\\.(?:$endings)$/i", (string) $zip->getNameIndex($i));
        $found = [];
        foreach ($indices as $shp) {
            if ($is($shp, 'shp')) {
                $others = array_filter($indices, static fn (int $i): bool => $is($i, self::BESIDE) && $stem($i) === $stem($shp));
                $found[] = [$shp, ...array_values($others)];
            }
        }

        return $found;
    }

    /** @param array<string, string> $parts contents by name */
    private static function zipped(array $parts): string
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'shp');
        $zip = new \ZipArchive();
        $zip->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
        foreach ($parts as $name => $bytes) {
            $zip->addFromString($name, $bytes);
            // Of the same parts the same bytes are made: a file that is there already is found again.
            $zip->setMtimeName($name, self::NO_TIME);
        }
        $zip->close();
        $bytes = (string) file_get_contents($path);
        @unlink($path);

        return $bytes;
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
