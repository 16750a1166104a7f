<?php

declare(strict_types=1);

namespace Mensura\Plot;

/** Scales of drawings at which a piece of ground fits a window; ISO 5455's 1, 2 and 5 by powers of ten, and 2.5 (common practice). */
final class ScaleChoice
{
    private const STEPS = [1.0, 2.0, 2.5, 5.0];
    private const MOST = 4;

    /**
     * @param float $width  of the ground as it lies in the window, metres
     * @param float $across millimetres of paper
     *
     * @return list<float> denominators, the largest drawing first
     */
    public static function fitting(float $width, float $height, float $across, float $down): array
    {
        $least = 1000.0 * max($width / $across, $height / $down);
        $fitting = [];
        for ($power = 1; $power < 9 && \count($fitting) < self::MOST; ++$power) {
            foreach (self::STEPS as $step) {
                $scale = $step * 10 ** $power;
                if ($scale >= $least * (1.0 - 1e-9) && \count($fitting) < self::MOST) {
                    $fitting[] = $scale;
                }
            }
        }

        return $fitting;
    }

    /** A step of the grid, or a length of the scale bar: 1, 2 or 5 by powers of ten, at most 50 mm on the paper; metres. */
    public static function grid(float $denominator): float
    {
        $wanted = 0.05 * $denominator;
        $power = 10 ** floor(log10($wanted));
        foreach ([5.0, 2.0, 1.0] as $step) {
            if ($step * $power <= $wanted * (1.0 + 1e-9)) {
                return $step * $power;
            }
        }

        return $power;
    }
}
