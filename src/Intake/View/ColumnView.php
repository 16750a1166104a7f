<?php

declare(strict_types=1);

namespace App\Intake\View;

/** A column of a file and a few of its cells. */
final readonly class ColumnView
{
    /**
     * @param list<string> $samples
     */
    public function __construct(
        public int $index,
        public string $heading,
        public array $samples,
        public bool $used,
    ) {
    }
}
