<?php

declare(strict_types=1);

namespace App\Checks\View;

/** Measured points held against a reference. Metres. */
final readonly class DeviationView
{
    /**
     * @param string                $against       the reference, in words
     * @param string                $measuredKind  points, surface or cloud
     * @param ?float                $nearestBeyond least size of what was left out beyond the limit
     * @param ?float                $steepest      greatest slope of the reference, metres a metre; null for a level one
     * @param ?float                $planeSd       of the points off the plane
     * @param list<string>          $codes
     * @param list<string>          $layers
     * @param list<string>          $planeCodes
     * @param list<float>           $limits        of the bands it is reported in
     * @param list<string>          $colours       of them, one more
     * @param list<string>          $stale         reasons
     */
    public function __construct(
        public int $number,
        public string $name,
        public string $measuredOn,
        public string $against,
        public string $reference,
        public string $along,
        public array $codes,
        public string $pattern,
        public int $surface,
        public int $design,
        public array $layers,
        public array $planeCodes,
        public float $elevation,
        public ?float $ignore,
        public string $unit,
        public string $measuredKind,
        public int $measuredSurface,
        public int $measuredCloud,
        public int $cloud,
        public ?float $radius,
        public int $measured,
        public int $used,
        public int $beyond,
        public int $outside,
        public ?float $mean,
        public ?float $rms,
        public ?float $sd,
        public ?float $min,
        public ?float $max,
        public ?float $nearestBeyond,
        public ?float $steepest,
        public ?float $planeSd,
        public int $run,
        public string $output,
        public string $at,
        public string $author,
        public array $limits,
        public array $colours,
        public array $stale,
    ) {
    }
}
