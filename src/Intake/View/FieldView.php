<?php

declare(strict_types=1);

namespace App\Intake\View;

/**
 * What a kind of file says, where it was found, and in which unit. Unit is null
 * where it must be answered; level and why say how sure it is.
 */
final readonly class FieldView
{
    /**
     * @param list<string> $units
     */
    public function __construct(
        public string $key,
        public string $label,
        public string $quantity,
        public bool $required,
        public ?int $column,
        public ?string $unit,
        public array $units,
        public string $level,
        public string $why,
    ) {
    }
}
