<?php

declare(strict_types=1);

namespace Mensura\Tests\Cloud;

use PHPUnit\Framework\Assert;

/** A tileset read by the letter of 3D Tiles 1.0 (OGC 22-025r4): headers, lengths, boxes, errors that fall. */
final class TileWalk
{
    /** @return list<string> every point as "e n h", three decimals */
    public static function points(string $folder): array
    {
        $set = json_decode((string) file_get_contents("$folder/tileset.json"), true, 512, \JSON_THROW_ON_ERROR);
        Assert::assertSame(['1.0', 'ADD'], [$set['asset']['version'], $set['root']['refine']]);
        $found = [];
        self::tile($folder, $set['root'], $set['geometricError'], $found);
        Assert::assertCount($set['extras']['points'], $found);

        return $found;
    }

    /**
     * @param array<string, mixed> $tile
     * @param list<string>         $found
     */
    private static function tile(string $folder, array $tile, float $error, array &$found): void
    {
        Assert::assertLessThan($error, $tile['geometricError']);
        $bytes = (string) file_get_contents($folder.'/'.$tile['content']['uri']);
        $h = unpack('a4magic/Vversion/Vlength/Vtable/Vbody/Vbatch/Vbinary', $bytes) ?: [];
        Assert::assertSame(['pnts', 1, \strlen($bytes)], [$h['magic'], $h['version'], $h['length']]);
        Assert::assertSame([0, 0], [(28 + $h['table']) % 8, (28 + $h['table'] + $h['body'] + $h['batch']) % 8]);
        $table = json_decode(substr($bytes, 28, $h['table']), true);
        $box = $tile['boundingVolume']['box'];
        $places = array_values((array) unpack('g*', substr($bytes, 28 + $h['table'], 12 * $table['POINTS_LENGTH'])));
        foreach (array_chunk($places, 3) as $p) {
            foreach ([0, 1, 2] as $k) {
                $p[$k] += $table['RTC_CENTER'][$k];
                Assert::assertLessThanOrEqual($box[3] * 1.000001, abs($p[$k] - $box[$k]));
            }
            $found[] = \sprintf('%.3F %.3F %.3F', ...$p);
        }
        foreach ($tile['children'] ?? [] as $child) {
            self::tile($folder, $child, $tile['geometricError'], $found);
        }
    }
}
