<?php

declare(strict_types=1);

namespace App\Network\View;

/** A traverse balanced, and the others that were found. Degrees and metres; what is allowed beside what is there. */
final readonly class TraverseView
{
    /**
     * @param list<TraverseStationView> $stations
     * @param list<TraverseLineView>                $found
     * @param list<string>              $occupied
     * @param ?string                   $fault    why it cannot be computed
     */
    public function __construct(
        public ?string $back,
        public array $stations,
        public ?string $fore,
        public array $found,
        public ?float $angularMisclosure,
        public ?float $angularAllowed,
        public ?float $misclosureE,
        public ?float $misclosureN,
        public ?float $linear,
        public ?float $linearAllowed,
        public ?float $length,
        public ?float $ratio,
        public ?float $varianceFactor,
        public ?bool $passed,
        public ?string $fault,
        public array $occupied,
    ) {
    }
}
