<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Export\WrittenFile;
use App\HandOver\View\ComparedView;
use App\Result\Result;
use App\Store\FileStore;
use Smalot\PdfParser\Parser;

/** Two files of a kind that were handed over: what differs, and of which inputs it comes. */
final class Comparison
{
    /** Lines that are shown of each. */
    private const SHOWN = 20;
    private const LONGEST = 300;
    private const LARGEST = 50_000_000;

    public function __construct(private readonly FileStore $store, private readonly WrittenFiles $written)
    {
    }

    public function of(Result $before, Result $now): ComparedView
    {
        $because = [];
        foreach ($now->inputs as $input => $version) {
            $had = $before->inputs[$input] ?? null;
            if (null === $had) {
                $because[] = $this->written->words((string) $input).' joined it';
            } elseif ($had !== $version) {
                $because[] = $this->written->words((string) $input).' changed';
            }
        }
        foreach (array_keys(array_diff_key($before->inputs, $now->inputs)) as $input) {
            $because[] = $this->written->words((string) $input).' left it';
        }
        foreach (WrittenFile::kept($now)['checks'] as $i => $check) {
            $was = WrittenFile::kept($before)['checks'][$i] ?? null;
            if (null !== $was && $was['what'] === $check['what'] && $was['found'] !== $check['found']) {
                $because[] = \sprintf('%s: %s before, %s now', $check['what'], $was['found'], $check['found']);
            }
        }
        if ($before->output === $now->output) {
            return new ComparedView($before->run, $now->run, true, $because, 0, 0, [], []);
        }
        [$had, $has] = [$this->lines($before), $this->lines($now)];
        [$gone, $new] = [self::without($had, $has), self::without($has, $had)];

        return new ComparedView(
            $before->run, $now->run, false, $because, \count($gone), \count($new), \array_slice($gone, 0, self::SHOWN),
            \array_slice($new, 0, self::SHOWN),
        );
    }

    /** @return list<string> what a file says, line by line; of a zip the files in it with their checksums */
    private function lines(Result $file): array
    {
        if ($this->store->size($file->output) > self::LARGEST) {
            return [];
        }
        $bytes = $this->store->get($file->output);
        if (str_starts_with($bytes, '%PDF')) {
            $bytes = (new Parser())->parseContent($bytes)->getText();
        } elseif (str_starts_with($bytes, "PK\x03\x04")) {
            $bytes = implode("\n", $this->members($this->store->localPath($file->output)));
        } elseif (str_starts_with($bytes, "SQLite format 3\0")) {
            return [];
        }

        return array_values(array_filter(array_map(
            static fn (string $l): string => mb_substr(mb_scrub(trim($l)), 0, self::LONGEST), preg_split('/\R/', $bytes) ?: [],
        )));
    }

    /** @return list<string> */
    private function members(string $path): array
    {
        $zip = new \ZipArchive();
        $members = [];
        if (true === $zip->open($path, \ZipArchive::RDONLY)) {
            for ($i = 0; $i < $zip->numFiles; ++$i) {
                $stat = $zip->statIndex($i);
                if (\is_array($stat)) {
                    $members[] = \sprintf('%s, %d bytes, checksum %08x', $stat['name'], $stat['size'], $stat['crc']);
                }
            }
            $zip->close();
        }

        return $members;
    }

    /**
     * @param list<string> $lines
     * @param list<string> $others
     *
     * @return list<string> those lines that the others do not have, each as often as it is missing
     */
    private static function without(array $lines, array $others): array
    {
        $count = array_count_values($others);
        $left = [];
        foreach ($lines as $line) {
            if (0 < ($count[$line] ?? 0)) {
                --$count[$line];
            } else {
                $left[] = $line;
            }
        }

        return $left;
    }
}
