<?php

declare(strict_types=1);

namespace App\Network\View;

/** A set-up placed on marks that are held: its station, how the held marks agree, and the places of what it sights. */
final readonly class SetupPlacesView
{
    /**
     * @param list<string>       $held    marks held
     * @param list<string>       $offered targets with coordinates, that may be held
     * @param list<PlacedView>   $places  the station first where it was found, then the targets
     * @param list<HeldSightView> $checks of the held targets
     * @param ?string            $fault   why it cannot be placed
     */
    public function __construct(
        public string $station,
        public bool $resection,
        public bool $stationKnown,
        public array $held,
        public array $offered,
        public array $places,
        public array $checks,
        public ?int $redundancy,
        public ?float $varianceFactor,
        public ?bool $passed,
        public ?string $fault,
    ) {
    }
}
