<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** A network to be measured. Metres, parts per million, metres by root of the kilometres. */
final readonly class PlanRequest
{
    /**
     * @param list<array{name: string, e: float, n: float, h: float, held: bool}>   $marks
     * @param list<array{from: string, to: string, kind: string, rounds: int}>      $sights
     */
    public function __construct(
        #[Assert\Count(max: 2000)]
        public array $marks,
        #[Assert\Count(max: 20000)]
        public array $sights,
        public bool $withMeasured = true,
        #[Assert\Range(min: 0.0001, max: 10)]
        public float $vectorPlan = 0.003,
        #[Assert\Range(min: 0.0001, max: 10)]
        public float $vectorHeight = 0.006,
        #[Assert\Range(min: 0, max: 1000)]
        public float $vectorPpm = 0.5,
        #[Assert\Range(min: 0.00001, max: 1)]
        public float $perKm = 0.001,
        #[Assert\Range(min: 0.0001, max: 100)]
        public float $wanted = 0.005,
    ) {
    }
}
