<?php

declare(strict_types=1);

namespace Mensura\Reference\Localization;

/**
 * A fitted localization with everything to judge it by. Residuals are grid as computed less grid as given, metres.
 *
 * @phpstan-type Row array{
 *     name: string, e: ?float, n: ?float, h: ?float, horizontal: ?float, standardized: ?float, standardizedH: ?float,
 *     without: ?array{e: float, n: float, h: ?float},
 * }
 */
final readonly class Fit
{
    /**
     * @param list<Row>                  $rows           residual of every pair; "without": what the fit of all others
     *     says less what is given
     * @param array<string, ?float>      $sd             standard deviations of the fitted parameters
     *     (shiftE, shiftN metres; rotation degrees; scale ratio; plane a, b, c), null where held or without redundancy
     * @param ?float                     $sigma          horizontal standard deviation of one coordinate, metres
     * @param int                        $redundancy     horizontal
     * @param ?array{
     *     name: string, part: string, sigma: float, sigmaWithout: float, off: list<float>,
     * } $suspect the pair that fits worst with the others, when the evidence is strong: sigma of all and of the rest, and
     *     how far it is off the rest (east and north, or height), metres
     * @param list<array{float, float}>  $hull           convex hull of the pairs on the local side
     */
    public function __construct(
        public Localization $localization,
        public array $rows,
        public array $sd,
        public ?float $sigma,
        public ?float $sigmaH,
        public int $redundancy,
        public int $redundancyH,
        public ?array $suspect,
        public array $hull,
    ) {
    }

    /** Metres from the pairs' hull; zero inside. */
    public function outside(float $localE, float $localN): float
    {
        $n = \count($this->hull);
        if ($n < 3) {
            $nearest = \INF;
            foreach ($this->hull as $i => [$x, $y]) {
                [$p, $q] = $this->hull[($i + 1) % $n];
                $nearest = min($nearest, self::toSegment($localE, $localN, $x, $y, $p, $q));
            }

            return $nearest;
        }
        $inside = true;
        $nearest = \INF;
        foreach ($this->hull as $i => [$x, $y]) {
            [$p, $q] = $this->hull[($i + 1) % $n];
            $inside = $inside && ($p - $x) * ($localN - $y) - ($q - $y) * ($localE - $x) >= 0.0;
            $nearest = min($nearest, self::toSegment($localE, $localN, $x, $y, $p, $q));
        }

        return $inside ? 0.0 : $nearest;
    }

    private static function toSegment(float $x, float $y, float $x1, float $y1, float $x2, float $y2): float
    {
        $dx = $x2 - $x1;
        $dy = $y2 - $y1;
        $length = $dx * $dx + $dy * $dy;
        $t = 0.0 === $length ? 0.0 : max(0.0, min(1.0, (($x - $x1) * $dx + ($y - $y1) * $dy) / $length));

        return hypot($x - $x1 - $t * $dx, $y - $y1 - $t * $dy);
    }
}
