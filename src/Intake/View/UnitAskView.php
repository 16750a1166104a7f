<?php

declare(strict_types=1);

namespace App\Intake\View;

/** A unit that stands nowhere in the file: asked once for all columns it would answer, with the likely answer and why it is that. */
final readonly class UnitAskView
{
    /**
     * @param list<string> $fields keys of the fields it answers
     * @param list<string> $units  to choose among
     */
    public function __construct(
        public string $text,
        public array $fields,
        public array $units,
        public string $offer,
        public string $why,
    ) {
    }
}
