<?php

declare(strict_types=1);

namespace App\Intake\View;

use App\Reference\View\CandidateView;

/** What a file's coordinates and heights are taken to mean; said is what the heading of its height column says; sigma in metres. */
final readonly class MeaningView
{
    /**
     * @param list<AskView>       $asks what must be answered before the file can be accepted
     * @param list<CandidateView> $ways transformations to choose among, when the best cannot be used or one was chosen
     */
    public function __construct(
        public string $frame,
        public string $heights,
        public string $said,
        public string $geoid,
        public ?bool $swap,
        public bool $far,
        public string $sign,
        public string $operation,
        public bool $geographic,
        public bool $hasHeights,
        public string $control,
        public ?float $sigma,
        public bool $plane,
        public array $asks,
        public array $ways,
    ) {
    }
}
