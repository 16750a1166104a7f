<?php

declare(strict_types=1);

namespace Mensura\TotalStation;

use Mensura\Fault\UnusableInput;

/**
 * Reduces the pointings of a setup: face pairs, rounds, atmosphere, prism constant, curvature and refraction.
 *
 * Faces: mean = (face 1 + face 2 - 180)/2 for directions and (z1 + 360 - z2)/2 for zenith angles; index = (z1 + z2 - 360)/2,
 * collimation on the horizon = (d1 - d2 + 180)/2 sin z (textbooks of surveying instruments; common practice). Rounds:
 * {@see RoundMeans}. Atmosphere: {@see Weather::refractivity()}. Height and horizontal distance on a sphere through the
 * instrument, the zenith angle turned by half the angle of refraction, k S/(2R).
 */
final readonly class SetupReducer
{
    /** Target heights that differ by more are two targets, metres. */
    private const SAME_HEIGHT = 1e-4;

    public function __construct(private ReductionSettings $settings)
    {
    }

    /**
     * @throws UnusableInput naming the setup when its rounds have no target in common
     */
    public function reduce(Setup $setup): ReducedSetup
    {
        $ppm = $this->settings->ppm($setup->weather);
        [$targets, $targetOf] = $this->targets($setup);
        [$sights, $collimation, $index] = $this->faces($setup, $targetOf, 1.0 + 1e-6 * $ppm);
        $warnings = [];
        foreach ($sights as $sight) {
            if ($sight->isPair()) {
                continue;
            }
            if (null === $collimation || null === $index) {
                $warnings[] = \sprintf(
                    'setup %s: target %s was seen in face %d only in round %s, and no face pair of the setup corrects it',
                    $setup->id, $targets[$sight->target][0], $sight->face, $sight->round,
                );
                continue;
            }
            $sign = 1 === $sight->face ? 1.0 : -1.0;
            $sight->zenith -= $sign * $index;
            $sight->direction -= $sign * $collimation / sin(deg2rad($sight->zenith));
        }
        $means = new RoundMeans($sights);
        if (!$means->connected) {
            throw new UnusableInput('', \sprintf(
                'setup %s: its rounds have no target in common, so their directions cannot be brought together; '
                    .'give them as separate setups', $setup->id,
            ));
        }
        $pairs = array_values(array_filter($sights, static fn (FaceSight $s): bool => $s->isPair()));
        $spread = new RoundMeans($pairs);

        return new ReducedSetup(
            $setup->id, $setup->station, \count(array_unique(array_map(static fn (Pointing $p): string => $p->round, $setup->pointings))),
            $collimation, $index,
            $spread->redundancy > 0 ? sqrt($spread->sumSquares / $spread->redundancy) : null, self::zenithSpread($pairs), $ppm,
            $means->redundancy > 0 ? sqrt($means->sumSquares / $means->redundancy) : null,
            $this->means($setup, $targets, $sights, $means), $warnings,
        );
    }

    /**
     * @return array{list<array{string, float}>, list<int>} name and height of each target; target of each pointing
     */
    private function targets(Setup $setup): array
    {
        $targets = $targetOf = $byName = [];
        foreach ($setup->pointings as $pointing) {
            $found = null;
            foreach ($byName[$pointing->target] ?? [] as $t) {
                if (abs($targets[$t][1] - $pointing->targetHeight) <= self::SAME_HEIGHT + 1e-12) {
                    $found = $t;
                    break;
                }
            }
            if (null === $found) {
                $found = \count($targets);
                $byName[$pointing->target][] = $found;
                $targets[] = [$pointing->target, $pointing->targetHeight];
            }
            $targetOf[] = $found;
        }

        return [$targets, $targetOf];
    }

    /**
     * @param list<int> $targetOf
     *
     * @return array{list<FaceSight>, ?float, ?float} sights, singles as they stand; collimation and index
     */
    private function faces(Setup $setup, array $targetOf, float $scale): array
    {
        $byTarget = [];
        foreach ($setup->pointings as $i => $pointing) {
            $byTarget[$pointing->round."\0".$targetOf[$i]][$pointing->face][] = $i;
        }
        $sights = [];
        $collimation = $index = 0.0;
        $pairs = 0;
        foreach ($byTarget as $faces) {
            $first = $faces[1] ?? [];
            $second = $faces[2] ?? [];
            for ($k = 0, $count = max(\count($first), \count($second)); $k < $count; ++$k) {
                $one = isset($first[$k]) ? $setup->pointings[$first[$k]] : null;
                $two = isset($second[$k]) ? $setup->pointings[$second[$k]] : null;
                $target = $targetOf[$first[$k] ?? $second[$k]];
                $slopes = [];
                foreach ([$one, $two] as $p) {
                    if (null !== $p?->distance) {
                        $slopes[] = ($p->distance + $p->prism) * $scale;
                    }
                }
                $slope = [] === $slopes ? null : array_sum($slopes) / \count($slopes);
                if (null !== $one && null !== $two) {
                    $half = 0.5 * RoundMeans::turn($one->direction - $two->direction + 180.0);
                    $zenith = 0.5 * ($one->zenith + 360.0 - $two->zenith);
                    $sights[] = new FaceSight($one->round, $target, $one->direction - $half, $zenith, $slope, 2, 1);
                    $collimation += $half * sin(deg2rad($zenith));
                    $index += 0.5 * ($one->zenith + $two->zenith - 360.0);
                    ++$pairs;
                } elseif (null !== $one) {
                    $sights[] = new FaceSight($one->round, $target, $one->direction, $one->zenith, $slope, 1, 1);
                } elseif (null !== $two) {
                    $sights[] = new FaceSight($two->round, $target, $two->direction - 180.0, 360.0 - $two->zenith, $slope, 1, 2);
                }
            }
        }

        return 0 === $pairs ? [$sights, null, null] : [$sights, $collimation / $pairs, $index / $pairs];
    }

    /** @param list<FaceSight> $pairs */
    private static function zenithSpread(array $pairs): ?float
    {
        $byTarget = [];
        foreach ($pairs as $pair) {
            $byTarget[$pair->target][] = $pair->zenith;
        }
        $redundancy = \count($pairs) - \count($byTarget);
        $sum = 0.0;
        foreach ($byTarget as $zeniths) {
            $mean = array_sum($zeniths) / \count($zeniths);
            foreach ($zeniths as $zenith) {
                $sum += ($zenith - $mean) ** 2;
            }
        }

        return $redundancy > 0 ? sqrt($sum / $redundancy) : null;
    }

    /**
     * @param list<array{string, float}> $targets
     * @param list<FaceSight>            $sights
     *
     * @return list<ReducedTarget>
     */
    private function means(Setup $setup, array $targets, array $sights, RoundMeans $rounds): array
    {
        $zeniths = $slopes = $pointings = $paired = [];
        foreach ($sights as $sight) {
            $t = $sight->target;
            $zeniths[$t][] = $sight->zenith;
            if (null !== $sight->slope) {
                $slopes[$t][] = $sight->slope;
            }
            $pointings[$t] = ($pointings[$t] ?? 0) + $sight->pointings;
            $paired[$t] = ($paired[$t] ?? false) || $sight->isPair();
        }
        $zero = $rounds->directions[0];
        $reduced = [];
        foreach ($targets as $t => [$name, $height]) {
            $direction = fmod($rounds->directions[$t] - $zero, 360.0);
            $direction = $direction < 0.0 ? $direction + 360.0 : $direction;
            $zenith = array_sum($zeniths[$t]) / \count($zeniths[$t]);
            $slope = isset($slopes[$t]) ? array_sum($slopes[$t]) / \count($slopes[$t]) : null;
            [$horizontal, $difference] = null === $slope ? [null, null] : $this->onSphere($slope, $zenith);
            $reduced[] = new ReducedTarget(
                $name, $height, $direction >= 360.0 ? 0.0 : $direction, $zenith, $slope, $horizontal,
                null === $difference ? null : $difference + $setup->instrumentHeight - $height,
                $paired[$t] ? 'both' : 'one', $pointings[$t],
            );
        }

        return $reduced;
    }

    /**
     * @return array{float, float} arc at the instrument's height, and height of the target above the instrument
     */
    private function onSphere(float $slope, float $zenith): array
    {
        $radius = $this->settings->earthRadius;
        $z = deg2rad($zenith) + $this->settings->refraction * $slope / (2.0 * $radius);
        $x = $slope * sin($z);
        $y = $slope * cos($z);

        // sqrt((R + y)^2 + x^2) - R without losing the digits of R.
        return [$radius * atan2($x, $radius + $y), (2.0 * $radius * $y + $y * $y + $x * $x) / (hypot($radius + $y, $x) + $radius)];
    }
}
