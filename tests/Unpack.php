<?php

declare(strict_types=1);

namespace App\Tests;

/** Reads a packed answer, from the layout in docs/formats.md. */
final class Unpack
{
    /** @return array<mixed> what JSON would have said */
    public static function answer(string $deflated): array
    {
        $bytes = (string) gzuncompress($deflated);
        $length = unpack('V', $bytes)[1] ?? 0;
        $head = json_decode(substr($bytes, 4, $length), true, 64, \JSON_THROW_ON_ERROR);
        $at = 4 + $length;
        $answer = $head['facts'];
        foreach ($head['tables'] as $table) {
            $rows = array_fill(0, $table['count'], []);
            foreach ($table['columns'] as $column) {
                [$code, $size] = ['number' => ['e', 8], 'flag' => ['C', 1]][$column['kind']] ?? ['V', 4];
                $values = array_values((array) unpack($code.'*', substr($bytes, $at, $size * $table['count'])));
                $at += $size * $table['count'];
                $last = 0;
                foreach ($values as $i => $value) {
                    if ('V' === $code) {
                        $last = ($last + $value) & 0xFFFFFFFF;
                        $value = 0xFFFFFFFF === $last ? null : $last;
                    }
                    $rows[$i][$column['name']] = match ($column['kind']) {
                        'number' => is_nan($value) ? null : $value,
                        'flag' => 1 === $value,
                        'text' => null === $value ? null : $column['texts'][$value],
                        default => $value,
                    };
                }
            }
            $answer[$table['name']] = $rows;
        }

        return $answer;
    }
}
