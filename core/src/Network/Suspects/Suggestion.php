<?php

declare(strict_types=1);

namespace Mensura\Network\Suspects;

/** The value that a cause suggests, as the person at the instrument would have written it. */
final class Suggestion
{
    private const FOOT = 0.3048;

    /** Ratios are near within this, parts per million. */
    private const NEAR = 3000.0;

    /** From the roundest to the finest, metres. */
    private const STEPS = [0.1, 0.05, 0.01, 0.005, 0.001];

    public static function of(Hypothesis $h, float $estimate, float $sd): ?string
    {
        if (Form::Scale === $h->form) {
            return self::scale($estimate, $sd);
        }
        if (null === $h->recorded) {
            return null;
        }
        $corrected = $h->recorded + $estimate;

        return match ($h->cause) {
            'target-height' => \sprintf('ht %.3f for %.3f', self::rounded($corrected, $sd), $h->recorded),
            'instrument-height' => \sprintf('hi %.3f for %.3f', self::rounded($corrected, $sd), $h->recorded),
            'direction', 'azimuth', 'angle' => \sprintf('%.4f degrees for %.4f', fmod($corrected + 720.0, 360.0), $h->recorded),
            'zenith' => \sprintf('%.4f degrees for %.4f', $corrected, $h->recorded),
            'distance', 'height-difference' => \sprintf('%.3f m for %.3f', $corrected, $h->recorded),
            default => null,
        };
    }

    /**
     * What to add to the recorded values when the cause is accepted: to the round value where there is one, the ratio of feet
     * where that is it, else the estimate.
     */
    public static function change(Hypothesis $h, float $estimate, float $sd): float
    {
        if (Form::Scale === $h->form) {
            foreach ([self::FOOT - 1.0, 1.0 / self::FOOT - 1.0] as $ratio) {
                if (abs($estimate - 1e6 * $ratio) < max(self::NEAR, 4.0 * $sd)) {
                    return 1e6 * $ratio;
                }
            }
        }
        $isHeight = Form::TargetHeight === $h->form || Form::InstrumentHeight === $h->form;

        return $isHeight && null !== $h->recorded ? self::rounded($h->recorded + $estimate, $sd) - $h->recorded : $estimate;
    }

    private static function scale(float $ppm, float $sd): string
    {
        foreach ([[self::FOOT - 1.0, 'feet for metres'], [1.0 / self::FOOT - 1.0, 'metres for feet']] as [$ratio, $words]) {
            if (abs($ppm - 1e6 * $ratio) < max(self::NEAR, 4.0 * $sd)) {
                return $words;
            }
        }

        return \sprintf('%+.1f ppm', $ppm);
    }

    /** The roundest value that the estimate allows. */
    private static function rounded(float $value, float $sd): float
    {
        foreach (self::STEPS as $step) {
            $round = $step * round($value / $step);
            if (abs($round - $value) <= max(2.0 * $sd, 0.0005)) {
                return $round;
            }
        }

        return round($value, 3);
    }
}
