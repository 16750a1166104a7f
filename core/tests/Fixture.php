<?php

declare(strict_types=1);

namespace Mensura\Tests;

/** Reads the values made by the scripts under fixtures/. */
final class Fixture
{
    public static function path(string $name): string
    {
        return __DIR__.'/fixtures/'.$name;
    }

    /** @return array<string, mixed> */
    public static function json(string $name): array
    {
        return json_decode((string) file_get_contents(self::path($name)), true, 64, \JSON_THROW_ON_ERROR);
    }

    /** @return list<array<string, string>> */
    public static function csv(string $name): array
    {
        $lines = array_map(
            static fn (string $l): array => str_getcsv($l, ',', '"', ''),
            file(self::path($name), \FILE_IGNORE_NEW_LINES) ?: [],
        );
        $header = array_shift($lines);

        return array_map(static fn (array $row): array => array_combine($header, $row), $lines);
    }
}
