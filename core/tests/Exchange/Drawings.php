<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\CoordinateCsv\CoordinateCsv;
use Mensura\Exchange\Dxf\DxfEntity;
use Mensura\Exchange\Dxf\DxfReader;
use Mensura\Exchange\Dxf\DxfWriter;

/** Drawings and lists as the texts they become on disk. */
final class Drawings
{
    public static function text(DxfWriter $dxf): string
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'dxf');
        $dxf->save($path);

        return self::taken($path);
    }

    /** @return list<DxfEntity> */
    public static function entities(DxfWriter|string $drawing, string $kind = ''): array
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'dxf');
        file_put_contents($path, \is_string($drawing) ? $drawing : self::text($drawing));
        try {
            return array_values(array_filter(
                iterator_to_array(DxfReader::entities($path), false), static fn (DxfEntity $e): bool => '' === $kind || $e->kind === $kind,
            ));
        } finally {
            unlink($path);
        }
    }

    /** @param list<array{name: string, e: float, n: float, h: ?float, code: string, role: string, source: string}> $points */
    public static function csv(array $points, string $remark): string
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'csv');
        CoordinateCsv::write($points, $remark, $path);

        return self::taken($path);
    }

    private static function taken(string $path): string
    {
        $text = (string) file_get_contents($path);
        unlink($path);

        return $text;
    }
}
