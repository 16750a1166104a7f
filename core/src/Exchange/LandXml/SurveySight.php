<?php

declare(strict_types=1);

namespace Mensura\Exchange\LandXml;

/** One sight of a LandXML survey. Degrees as of the first face, metres. */
final readonly class SurveySight
{
    /**
     * @param string               $set    directions of a set share an orientation
     * @param array<string, float> $values by kind of observation: direction or azimuth, zenith, slope-distance, horizontal-distance
     */
    public function __construct(
        public int $line,
        public string $station,
        public string $setup,
        public string $set,
        public string $target,
        public float $hi,
        public float $ht,
        public ?int $face,
        public array $values,
        public ?\DateTimeImmutable $at,
    ) {
    }
}
