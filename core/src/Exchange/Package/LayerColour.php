<?php

declare(strict_types=1);

namespace Mensura\Exchange\Package;

/** Colours that a layer can have: as a page shows it, and the number a drawing gives it (DXF Reference, colour index). */
final class LayerColour
{
    public const ALL = [
        'red' => ['#c0392b', 1], 'amber' => ['#b8860b', 40], 'green' => ['#2e8b57', 3], 'teal' => ['#1f6f6b', 4], 'blue' => ['#2a5bd7', 5],
        'violet' => ['#7d4fa0', 6], 'grey' => ['#6b7280', 8], 'brown' => ['#8a5a2b', 32],
    ];

    public static function css(string $name): string
    {
        return self::ALL[$name][0] ?? self::ALL['grey'][0];
    }

    public static function index(string $name): int
    {
        return self::ALL[$name][1] ?? self::ALL['grey'][1];
    }
}
