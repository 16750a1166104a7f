<?php

declare(strict_types=1);

namespace App\Ledger;

/** Reads what a journal recorded, forward or backward, a few rows at a time. */
final class JournalFile
{
    private const LONGEST_LINE = 67_108_864;

    public function __construct(private readonly string $path)
    {
    }

    /** @return \Generator<Images> in the order the changes were made */
    public function images(): \Generator
    {
        $file = gzopen($this->path, 'rb') ?: throw new \RuntimeException('The journal cannot be read.');
        try {
            while (false !== $line = gzgets($file, self::LONGEST_LINE)) {
                yield from self::parsed($line);
            }
        } finally {
            gzclose($file);
        }
    }

    /** @return \Generator<Images> what takes the changes back, last first */
    public function backward(): \Generator
    {
        $file = gzopen($this->path, 'rb') ?: throw new \RuntimeException('The journal cannot be read.');
        $plain = tmpfile() ?: throw new \RuntimeException('No temporary file can be written.');
        $starts = [];
        while (false !== $line = gzgets($file, self::LONGEST_LINE)) {
            $starts[] = (int) ftell($plain);
            fwrite($plain, $line);
        }
        gzclose($file);
        foreach (array_reverse($starts) as $start) {
            fseek($plain, $start);
            foreach (array_reverse(self::parsed((string) fgets($plain))) as $images) {
                yield $images->reversed();
            }
        }
        fclose($plain);
    }

    /** @return list<Images> */
    private static function parsed(string $line): array
    {
        if (!str_starts_with($line, '[{')) {
            return [Images::fromLine($line)];
        }

        // Before 2026-11-28 a journal was one list of changes, each with columns by name.
        return array_map(static fn (array $c): Images => new Images($c['table'], array_map(
            strval(...), array_keys($c['before'] ?? $c['after']),
        ), [[
            $c['id'], null === $c['before'] ? null : array_values($c['before']), null === $c['after'] ? null : array_values($c['after']),
        ]]), array_values(json_decode($line, true, 64, \JSON_THROW_ON_ERROR)));
    }
}
