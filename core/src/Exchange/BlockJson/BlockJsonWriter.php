<?php

declare(strict_types=1);

namespace Mensura\Exchange\BlockJson;

use Mensura\Image\Block;
use Mensura\Image\BlockAdjustment;
use Mensura\Image\BlockResult;
use Mensura\Image\Lens;
use Mensura\Image\Rotation;
use Mensura\Image\UsedRays;

/** A block adjustment as mensura-block-result/1. */
final class BlockJsonWriter
{
    private const AXES = ['e', 'n', 'h'];
    private const ANGLES = ['omega', 'phi', 'kappa'];
    /** Of a standardized residual (common practice: one in a thousand). */
    private const FLAGGED = 3.29;

    /** @return array<string, mixed> */
    public static function document(Block $b, UsedRays $used, BlockAdjustment $adjustment, BlockResult $r): array
    {
        $warnings = [];
        $images = [];
        foreach ($b->imageIds as $i => $id) {
            if (!isset($r->positions[$i])) {
                $warnings[] = "image $id has no ray to a point that can be used; it is left out";
                $images[] = ['id' => $id] + array_fill_keys([...self::AXES, ...self::ANGLES], null) + ['sd' => null];
                continue;
            }
            $angles = Rotation::angles($r->rotations[$i]);
            $sd = array_combine(self::AXES, $r->positionSds[$i]) + array_combine(self::ANGLES, $r->angleSds[$i]);
            $images[] = ['id' => $id] + array_combine(self::AXES, $r->positions[$i]) + array_combine(self::ANGLES, $angles) + ['sd' => $sd];
        }
        [$points, $check] = self::points($b, $used, $adjustment, $r, $warnings);
        $control = [];
        $seen = array_fill_keys($b->rayPoint, true);
        foreach ($r->places as $p => $place) {
            if (Block::CONTROL === $b->roles[$p] && isset($seen[$p]) && null !== $b->places[$p]) {
                $control[] = [$place[0] - $b->places[$p][0], $place[1] - $b->places[$p][1], $place[2] - $b->places[$p][2]];
            }
        }
        $off = array_map(static fn (array $c): array => [$c['de'], $c['dn'], $c['dh']], $check);
        $rays = [];
        foreach ($r->rays as $index => [$vx, $vy, $w]) {
            $rays[] = [
                'index' => $index, 'vx' => $vx, 'vy' => $vy, 'standardized' => $w, 'flagged' => null !== $w && abs($w) > self::FLAGGED,
            ];
        }

        return [
            'format' => 'mensura-block-result/1', 'converged' => $r->converged, 'iterations' => $r->iterations, 'sigma0' => $r->sigma0,
            'redundancy' => $r->redundancy, 'cameras' => self::cameras($b, $r), 'images' => $images, 'points' => $points, 'rays' => $rays,
            'control' => ['rms' => self::rms($control)],
            'check' => ['rms' => self::rms($off), 'points' => $check],
            'warnings' => $warnings,
        ];
    }

    /** @return list<array<string, mixed>> */
    private static function cameras(Block $b, BlockResult $r): array
    {
        $cameras = [];
        foreach ($b->cameraIds as $c => $id) {
            $sd = [];
            foreach ($r->cameraSds[$c] ?? [] as $k => $v) {
                $sd[Lens::NAMES[$k]] = $v;
            }
            $cameras[] = ['id' => $id] + $b->cameraSizes[$c] + array_combine(Lens::NAMES, $r->cameras[$c]) + ['sd' => (object) $sd];
        }

        return $cameras;
    }

    /**
     * @param list<string> $warnings
     *
     * @return array{list<array<string, mixed>>, list<array{id: string, de: float, dn: float, dh: float}>}
     */
    private static function points(Block $b, UsedRays $used, BlockAdjustment $adjustment, BlockResult $r, array &$warnings): array
    {
        $raysOf = [];
        foreach ($b->rayPoint as $k => $p) {
            $raysOf[$p][] = $k;
        }
        $points = $check = [];
        foreach ($b->pointIds as $p => $id) {
            $rays = $raysOf[$p] ?? [];
            $place = $r->places[$p] ?? null;
            $sd = $r->placeSds[$p] ?? null;
            if (Block::CHECK === $b->roles[$p]) {
                [$place, $sd] = $adjustment->intersected($rays, $b->places[$p]) ?? [null, null];
                if (null !== $place && null !== $b->places[$p]) {
                    $check[] = [
                        'id' => $id, 'de' => $place[0] - $b->places[$p][0], 'dn' => $place[1] - $b->places[$p][1],
                        'dh' => $place[2] - $b->places[$p][2],
                    ];
                }
            }
            if (null === $place) {
                $many = [0 => 'no ray', 1 => 'one ray'][\count($rays)] ?? 'rays that do not meet';
                $warnings[] = "point $id has $many; it is left out";
            }
            $points[] = ['id' => $id, 'role' => $b->roles[$p]] + array_combine(self::AXES, $place ?? [null, null, null])
                + ['sd' => null === $sd ? null : array_combine(self::AXES, $sd), 'rays' => \count($rays)];
        }

        return [$points, $check];
    }

    /**
     * @param list<array{float, float, float}> $differences
     *
     * @return ?array<string, float>
     */
    private static function rms(array $differences): ?array
    {
        if ([] === $differences) {
            return null;
        }
        $rms = [];
        foreach (self::AXES as $k => $axis) {
            $squares = array_map(static fn (array $d): float => $d[$k] * $d[$k], $differences);
            $rms[$axis] = sqrt(array_sum($squares) / \count($squares));
        }

        return $rms;
    }
}
