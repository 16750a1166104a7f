<?php

declare(strict_types=1);

namespace Mensura\Passes;

/** How each pass is corrected, in the order of the passes. */
final readonly class PassesResult
{
    public const REFERENCE = 'reference';
    public const CONTROL = 'control';
    public const NONE = 'none';

    /**
     * @param list<ControlKnots>     $toControl
     * @param list<?PassComparison> $toReference
     */
    public function __construct(public array $toControl, public array $toReference)
    {
    }

    public function method(int $pass): string
    {
        return match (true) {
            PassComparison::CORRECTED === $this->toReference[$pass]?->status => self::REFERENCE,
            [] !== $this->toControl[$pass]->correction->times => self::CONTROL,
            default => self::NONE,
        };
    }

    public function correction(int $pass): Correction
    {
        return self::REFERENCE === $this->method($pass) ? $this->toReference[$pass]->correction ?? Correction::none()
            : $this->toControl[$pass]->correction;
    }
}
