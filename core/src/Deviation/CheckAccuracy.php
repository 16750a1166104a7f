<?php

declare(strict_types=1);

namespace Mensura\Deviation;

/**
 * What differences at check points amount to: tested minus check, metres. Accuracy at 95 % after FGDC-STD-007.3-1998 (National
 * Standard for Spatial Data Accuracy), section 3.2 and appendix 3-A: vertical 1.9600 times the root mean square, horizontal
 * 1.7308 times the radial one where those of easting and northing are equal, else 2.4477 times their mean as long as the smaller
 * is at least 0.6 of the greater. The standard asks for twenty points or more.
 */
final readonly class CheckAccuracy
{
    /** Points the standard asks for (section 3.2.2). */
    public const ENOUGH = 20;
    private const VERTICAL = 1.9600;
    private const CIRCULAR = 2.4477;
    private const LEAST_RATIO = 0.6;

    /** @var array<string, array{count: int, mean: float, rms: float, sd: ?float, min: float, max: float}> by coordinate: e, n, h */
    public array $axes;

    /** Radial root mean square, metres; null without plan differences. */
    public ?float $radial;

    /** At 95 %, metres; null where the standard gives none: no plan differences, or easting and northing too unlike. */
    public ?float $horizontal;

    /** At 95 %, metres; null without height differences. */
    public ?float $vertical;

    /**
     * @param list<float> $e differences, metres
     * @param list<float> $n as many as in easting
     * @param list<float> $h
     */
    public function __construct(array $e, array $n, array $h)
    {
        $this->axes = array_filter(['e' => self::moments($e), 'n' => self::moments($n), 'h' => self::moments($h)]);
        $x = $this->axes['e']['rms'] ?? null;
        $y = $this->axes['n']['rms'] ?? null;
        $this->radial = null === $x || null === $y ? null : sqrt($x * $x + $y * $y);
        $isAlike = null !== $x && null !== $y && min($x, $y) >= self::LEAST_RATIO * max($x, $y);
        // With equal ones both rules are one: 2.4477 / sqrt(2) = 1.7308.
        $this->horizontal = $isAlike ? self::CIRCULAR * 0.5 * ($x + $y) : null;
        $this->vertical = isset($this->axes['h']) ? self::VERTICAL * $this->axes['h']['rms'] : null;
    }

    /**
     * @param list<float> $d
     *
     * @return ?array{count: int, mean: float, rms: float, sd: ?float, min: float, max: float}
     */
    private static function moments(array $d): ?array
    {
        $s = new DeviationStatistics($d);

        return 0 === $s->used ? null : [
            'count' => $s->used, 'mean' => (float) $s->mean, 'rms' => (float) $s->rms, 'sd' => $s->sd, 'min' => (float) $s->min,
            'max' => (float) $s->max,
        ];
    }
}
