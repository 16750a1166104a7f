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
                if (isset($touchesPlan[$station->id]) || !$network->frame->isPlane()) {
                    $missing[] = 'plan position';
                }
                $e[$s] = 0.0;
                $n[$s] = 0.0;
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
