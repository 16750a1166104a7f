<?php

declare(strict_types=1);

namespace App\Survey;

/** Says which files something came from. */
final class Origins
{
    /**
     * @param array<array{file: string, sha256: string, count: int}> $files
     *
     * @return list<string>
     */
    public static function of(array $files, string $noun): array
    {
        return array_values(array_map(
            static fn (array $f): string => \sprintf(
                '%d %s of %s (sha-256 %s…)', $f['count'], $noun, $f['file'], substr($f['sha256'], 0, 10),
            ), $files,
        ));
    }
}
