<?php

declare(strict_types=1);

namespace Mensura\Gnss;

use Mensura\LinearAlgebra\Dense;

/** The place of a feature's vertex: the weighted mean of the positions collected there. Metres, geocentric. */
final readonly class VertexMean
{
    /**
     * What is left in a mean however many positions it has, for they are collected within seconds: part of one position's own
     * variance, since reflections last for minutes.
     */
    private const SHARED = 0.5;

    /**
     * @param array{float, float, float} $place
     * @param list<list<float>>          $covariance
     */
    private function __construct(public array $place, public array $covariance, public int $count, public string $solution)
    {
    }

    /**
     * @param list<array{position: array{float, float, float}, covariance: list<list<float>>, solution: string}> $epochs
     *
     * @return ?self null without any
     */
    public static function of(array $epochs): ?self
    {
        $n = array_fill(0, 3, [0.0, 0.0, 0.0]);
        $b = [0.0, 0.0, 0.0];
        $mean = array_fill(0, 3, [0.0, 0.0, 0.0]);
        $worst = BaselineSolution::FIXED;
        $count = 0;
        $origin = $epochs[0]['position'] ?? null;
        foreach ($epochs as $e) {
            $p = Dense::inverse($e['covariance']);
            if (null === $p || null === $origin) {
                continue;
            }
            ++$count;
            $worst = self::RANK[$e['solution']] > self::RANK[$worst] ? $e['solution'] : $worst;
            for ($i = 0; $i < 3; ++$i) {
                for ($j = 0; $j < 3; ++$j) {
                    $n[$i][$j] += $p[$i][$j];
                    $b[$i] += $p[$i][$j] * ($e['position'][$j] - $origin[$j]);
                    $mean[$i][$j] += $e['covariance'][$i][$j];
                }
            }
        }
        $q = 0 === $count ? null : Dense::inverse($n);
        if (null === $q || null === $origin) {
            return null;
        }
        $place = $covariance = [];
        foreach ($q as $i => $row) {
            $place[] = $origin[$i] + $row[0] * $b[0] + $row[1] * $b[1] + $row[2] * $b[2];
            $line = [];
            foreach ($row as $j => $value) {
                $line[] = (1.0 - self::SHARED) * $value + self::SHARED * $mean[$i][$j] / $count;
            }
            $covariance[] = $line;
        }

        return new self([$place[0], $place[1], $place[2]], $covariance, $count, $worst);
    }

    private const RANK = [BaselineSolution::FIXED => 0, BaselineSolution::FLOAT => 1, BaselineSolution::CODE => 2];
}
