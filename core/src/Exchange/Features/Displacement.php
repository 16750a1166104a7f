<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features;

/** How far coordinates lie from where they were meant to be, once a file is read back. */
final class Displacement
{
    /** Metres of a degree of latitude, for saying degrees in metres. */
    private const DEGREE = 111_320.0;
    /** Metres; what is further off may be another place. */
    private const NEAR = 0.01;
    private const METRES = ['foot' => 0.3048, 'US survey foot' => 1200.0 / 3937.0, 'millimetre' => 0.001];

    /**
     * Greatest distance of a place that was read back from the place meant that is nearest to it; a height that was not meant does not
     * count. Metres.
     */
    public static function greatest(FeatureSet $meant, FeatureSet $read): float
    {
        $isGeographic = $meant->isGeographic();
        $metre = $isGeographic ? self::DEGREE : self::METRES[$meant->unit ?? ''] ?? 1.0;
        $inOrder = self::inOrder($meant, $read, $metre, $isGeographic);
        if (null !== $inOrder) {
            return $inOrder;
        }
        $cell = 0.01 / $metre;
        $at = [];
        foreach ($meant->features as $f) {
            foreach ($f->places() as $p) {
                $at[floor($p[0] / $cell).' '.floor($p[1] / $cell)][] = $p;
            }
        }
        $greatest = 0.0;
        foreach ($read->features as $f) {
            foreach ($f->places() as $p) {
                $east = $isGeographic ? $metre * cos(deg2rad($p[1])) : $metre;
                $greatest = max($greatest, self::nearest($at, $p, $cell, $east, $metre, $isGeographic));
            }
        }

        return $greatest;
    }

    /** Place by place where they are as many and in the same order, as nearly all are; null where one is not near its own. */
    private static function inOrder(FeatureSet $meant, FeatureSet $read, float $metre, bool $isGeographic): ?float
    {
        if (\count($meant->features) !== \count($read->features)) {
            return null;
        }
        $greatest = 0.0;
        foreach ($read->features as $i => $f) {
            $own = iterator_to_array($meant->features[$i]->places(), false);
            $k = 0;
            foreach ($f->places() as [$x, $y, $h]) {
                $p = $own[$k++] ?? null;
                if (null === $p) {
                    return null;
                }
                $up = null === $h || null === $p[2] ? 0.0 : ($h - $p[2]) * ($isGeographic ? 1.0 : $metre);
                $away = hypot(hypot(($x - $p[0]) * ($isGeographic ? $metre * cos(deg2rad($y)) : $metre), ($y - $p[1]) * $metre), $up);
                if ($away > self::NEAR) {
                    return null;
                }
                $greatest = max($greatest, $away);
            }
            if ($k < \count($own)) {
                return null;
            }
        }

        return $greatest;
    }

    /**
     * @param array<string, list<array{float, float, ?float}>> $at
     * @param array{float, float, ?float}                      $p
     */
    private static function nearest(array $at, array $p, float $cell, float $east, float $metre, bool $isGeographic): float
    {
        $least = \INF;
        $look = static function (array $places) use (&$least, $p, $east, $metre, $isGeographic): void {
            foreach ($places as [$x, $y, $h]) {
                $up = null === $h || null === $p[2] ? 0.0 : ($h - $p[2]) * ($isGeographic ? 1.0 : $metre);
                $least = min($least, hypot(hypot(($x - $p[0]) * $east, ($y - $p[1]) * $metre), $up));
            }
        };
        [$i, $j] = [floor($p[0] / $cell), floor($p[1] / $cell)];
        for ($a = $i - 1; $a <= $i + 1; ++$a) {
            for ($b = $j - 1; $b <= $j + 1; ++$b) {
                $look($at["$a $b"] ?? []);
            }
        }
        if (is_infinite($least)) {
            // Nothing near: it is said how far away, at the cost of looking everywhere.
            array_walk($at, $look);
        }

        return is_infinite($least) ? 0.0 : $least;
    }
}
