<?php

declare(strict_types=1);

namespace App\Network\View;

/** A network that is to be measured, with the precision and reliability it will have. Metres; ellipses at the project's confidence. */
final readonly class PlanView
{
    /**
     * @param list<array{name: string, e: float, n: float, h: float, held: bool}>   $marks
     * @param list<array{from: string, to: string, kind: string, rounds: int}>      $sights
     * @param array{withMeasured: bool, vectorPlan: float, vectorHeight: float, vectorPpm: float, perKm: float, wanted: float} $settings
     * @param list<PlanStationView>  $stations every station of it, measured ones among them
     * @param list<PlanSightView>    $worth    by place in the sights
     * @param ?string $fault why it cannot be computed
     */
    public function __construct(
        public array $marks,
        public array $sights,
        public array $settings,
        public string $version,
        public array $stations,
        public array $worth,
        public ?int $redundancy,
        public float $confidence,
        public ?string $fault,
    ) {
    }
}
