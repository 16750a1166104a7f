<?php

declare(strict_types=1);

namespace Mensura\Exchange\Dxf;

/** Where placed blocks and extruded entities lie: rows of three by four, after the published DXF reference. */
final class DxfPlacement
{
    public const NONE = [1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0];

    /**
     * Of a block placed by INSERT, one of its columns and rows.
     *
     * @param array<int, string>         $g    first value of each group
     * @param array{float, float, float} $at   insertion point
     * @param array{float, float, float} $base of the block
     *
     * @return list<float>
     */
    public static function ofInsert(array $g, array $at, array $base, int $column, int $row): array
    {
        $turn = deg2rad((float) ($g[50] ?? 0));
        [$cos, $sin] = [cos($turn), sin($turn)];
        [$sx, $sy, $sz] = [(float) ($g[41] ?? 1), (float) ($g[42] ?? 1), (float) ($g[43] ?? 1)];
        [$px, $py, $pz] = $at;
        $dx = $column * (float) ($g[44] ?? 0);
        $dy = $row * (float) ($g[45] ?? 0);
        $m = [
            $cos * $sx, -$sin * $sy, 0.0, $px + $cos * ($dx - $sx * $base[0]) - $sin * ($dy - $sy * $base[1]),
            $sin * $sx, $cos * $sy, 0.0, $py + $sin * ($dx - $sx * $base[0]) + $cos * ($dy - $sy * $base[1]),
            0.0, 0.0, $sz, $pz - $sz * $base[2],
        ];
        $extrusion = self::ofExtrusion($g);

        return null === $extrusion ? $m : self::times($extrusion, $m);
    }

    /**
     * Of an entity whose coordinates are in its own plane; null where that is the world's.
     *
     * @param array<int, string> $g first value of each group
     *
     * @return ?list<float>
     */
    public static function ofExtrusion(array $g): ?array
    {
        $n = [(float) ($g[210] ?? 0), (float) ($g[220] ?? 0), (float) ($g[230] ?? 1)];
        $length = sqrt($n[0] ** 2 + $n[1] ** 2 + $n[2] ** 2);
        if (0.0 === $length || 0.0 === $n[0] && 0.0 === $n[1] && $n[2] > 0.0) {
            return null;
        }
        $n = [$n[0] / $length, $n[1] / $length, $n[2] / $length];
        // The arbitrary axis: from y where the extrusion is nearly z, else from z.
        $ax = abs($n[0]) < 1.0 / 64.0 && abs($n[1]) < 1.0 / 64.0 ? [$n[2], 0.0, -$n[0]] : [-$n[1], $n[0], 0.0];
        $length = sqrt($ax[0] ** 2 + $ax[1] ** 2 + $ax[2] ** 2);
        $ax = [$ax[0] / $length, $ax[1] / $length, $ax[2] / $length];
        $ay = [$n[1] * $ax[2] - $n[2] * $ax[1], $n[2] * $ax[0] - $n[0] * $ax[2], $n[0] * $ax[1] - $n[1] * $ax[0]];

        return [$ax[0], $ay[0], $n[0], 0.0, $ax[1], $ay[1], $n[1], 0.0, $ax[2], $ay[2], $n[2], 0.0];
    }

    /**
     * @param list<float> $a
     * @param list<float> $b
     *
     * @return list<float>
     */
    public static function times(array $a, array $b): array
    {
        $m = [];
        for ($r = 0; $r < 3; ++$r) {
            for ($c = 0; $c < 4; ++$c) {
                $m[] = $a[4 * $r] * $b[$c] + $a[4 * $r + 1] * $b[4 + $c] + $a[4 * $r + 2] * $b[8 + $c] + (3 === $c ? $a[4 * $r + 3] : 0.0);
            }
        }

        return $m;
    }

    /**
     * @param list<float> $m
     *
     * @return array{float, float, float}
     */
    public static function apply(array $m, float $x, float $y, float $z): array
    {
        return [
            $m[0] * $x + $m[1] * $y + $m[2] * $z + $m[3], $m[4] * $x + $m[5] * $y + $m[6] * $z + $m[7],
            $m[8] * $x + $m[9] * $y + $m[10] * $z + $m[11],
        ];
    }
}
