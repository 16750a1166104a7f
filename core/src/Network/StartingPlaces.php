<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Fault\UnusableInput;
use Mensura\Observation\ObservationKind;
use Mensura\Reference\OutsideProjection;

/** Where an adjustment starts: given coordinates, and approximate ones where none are given. */
final readonly class StartingPlaces
{
    /**
     * @param list<?float>     $given     e, n, h per station, as given
     * @param array<int, true> $placeless stations whose plan nothing gives or touches
     */
    private function __construct(public NetworkState $state, public array $given, public array $placeless)
    {
    }

    /**
     * @throws UnusableInput     a station that observations need cannot be placed
     * @throws OutsideProjection a given coordinate lies outside the projection
     */
    public static function find(NetworkDefinition $network): self
    {
        $given = $placeless = [];
        [$e, $n, $h] = ApproximateCoordinates::of($network);
        $touchesHeight = [];
        foreach ($network->observations as $o) {
            if (!$o->kind->isPlanOnly()) {
                $touchesHeight[$o->from] = $touchesHeight[$o->to] = true;
            }
        }
        $touchesPlan = [];
        foreach ($network->observations as $o) {
            if (ObservationKind::HeightDifference !== $o->kind) {
                $touchesPlan[$o->from] = $touchesPlan[$o->to] = true;
                if (null !== $o->back) {
                    $touchesPlan[$o->back] = true;
                }
            }
        }
        $middle = $network->frame->isPlane() ? [0.0, 0.0] : self::middle($e, $n);
        $lost = [];
        $heightSum = 0.0;
        $heightCount = 0;
        foreach ($network->stations as $s => $station) {
            $given[] = $station->e;
            $given[] = $station->n;
            $given[] = $station->h;
            if (null !== $h[$s]) {
                $heightSum += $h[$s];
                ++$heightCount;
            }
        }
        foreach ($network->stations as $s => $station) {
            $missing = [];
            if (null === $e[$s] || null === $n[$s]) {
                // What only levels touch needs no place of its own; on the ellipsoid it takes one in the middle of the others.
                if (isset($touchesPlan[$station->id]) || null === $middle) {
                    $missing[] = 'plan position';
                }
                $e[$s] = $middle[0] ?? 0.0;
                $n[$s] = $middle[1] ?? 0.0;
                $placeless[$s] = true;
            }
            if (null === $h[$s]) {
                if (isset($touchesHeight[$station->id])
                    && ($heightCount > 0 || $network->frame->isPlane())
                    && isset($touchesPlan[$station->id])
                    && !self::hasHeightSource($network, $station->id)
                ) {
                    $h[$s] = $heightCount > 0 ? $heightSum / $heightCount : 0.0;
                } elseif (isset($touchesHeight[$station->id])) {
                    $missing[] = 'height';
                }
                $h[$s] ??= 0.0;
            }
            if ([] !== $missing) {
                $lost[implode(' and ', $missing)][] = $station->id;
            }
        }
        if ([] !== $lost) {
            $parts = [];
            foreach ($lost as $what => $ids) {
                sort($ids, \SORT_NATURAL);
                $parts[] = \sprintf('%s: no approximate %s can be found', Names::listed($ids), $what);
            }
            throw new UnusableInput('stations', implode('; ', $parts).'; give coordinates, or observe from stations that have them');
        }

        /** @var list<float> $e */
        /** @var list<float> $n */
        /** @var list<float> $h */
        return new self(new NetworkState($network->frame, $e, $n, $h), $given, $placeless);
    }

    /**
     * @param list<?float> $e
     * @param list<?float> $n
     *
     * @return ?array{float, float}
     */
    private static function middle(array $e, array $n): ?array
    {
        $placed = array_keys(array_filter($e, static fn (?float $x): bool => null !== $x));
        if ([] === $placed) {
            return null;
        }
        $count = \count($placed);

        return [
            array_sum(array_map(static fn (int $s): float => (float) $e[$s], $placed)) / $count,
            array_sum(array_map(static fn (int $s): float => (float) $n[$s], $placed)) / $count,
        ];
    }

    private static function hasHeightSource(NetworkDefinition $network, string $id): bool
    {
        foreach ($network->observations as $o) {
            if (($o->from === $id || $o->to === $id)
                && \in_array($o->kind, [ObservationKind::HeightDifference, ObservationKind::Zenith, ObservationKind::Vector], true)
            ) {
                return true;
            }
        }

        return false;
    }
}
