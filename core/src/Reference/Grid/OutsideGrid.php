<?php

declare(strict_types=1);

namespace Mensura\Reference\Grid;

/** A position a grid does not cover. */
final class OutsideGrid extends \DomainException
{
    public static function at(string $grid, float $latDegrees, float $lonDegrees): self
    {
        return new self(\sprintf('latitude %.6f, longitude %.6f degrees lies outside the grid %s', $latDegrees, $lonDegrees, $grid));
    }
}
