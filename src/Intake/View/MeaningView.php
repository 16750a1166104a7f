<?php

declare(strict_types=1);

namespace App\Intake\View;

/** What a file's coordinates and heights are taken to mean; said is what the heading of its height column says. */
final readonly class MeaningView
{
    /** @param list<AskView> $asks what must be answered before the file can be accepted */
    public function __construct(
        public string $frame,
        public string $heights,
        public string $said,
        public string $geoid,
        public ?bool $swap,
        public bool $far,
        public string $sign,
        public bool $geographic,
        public bool $hasHeights,
        public array $asks,
    ) {
    }
}
