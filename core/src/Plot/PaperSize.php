<?php

declare(strict_types=1);

namespace Mensura\Plot;

use Mensura\Fault\UnusableInput;

/** Paper: ISO 216 series A, ANSI/ASME Y14.1 sizes A to E, and architectural sizes A to E; upright, millimetres. */
final readonly class PaperSize
{
    private const INCH = 25.4;

    /** Short side by long side: millimetres of the A series, inches of the others. */
    public const ISO = [
        'A4' => [210.0, 297.0], 'A3' => [297.0, 420.0], 'A2' => [420.0, 594.0], 'A1' => [594.0, 841.0], 'A0' => [841.0, 1189.0],
    ];
    public const INCHES = [
        'ANSI A' => [8.5, 11.0], 'ANSI B' => [11.0, 17.0], 'ANSI C' => [17.0, 22.0], 'ANSI D' => [22.0, 34.0], 'ANSI E' => [34.0, 44.0],
        'ARCH A' => [9.0, 12.0], 'ARCH B' => [12.0, 18.0], 'ARCH C' => [18.0, 24.0], 'ARCH D' => [24.0, 36.0], 'ARCH E' => [36.0, 48.0],
    ];

    private function __construct(public string $name, public float $width, public float $height)
    {
    }

    /** @throws UnusableInput */
    public static function named(string $name, bool $isLandscape): self
    {
        $inches = self::INCHES[$name] ?? null;
        [$short, $long] = self::ISO[$name] ?? (null === $inches
            ? throw new UnusableInput('/size', 'is one of '.implode(', ', self::names()))
            : [self::INCH * $inches[0], self::INCH * $inches[1]]);

        return $isLandscape ? new self($name, $long, $short) : new self($name, $short, $long);
    }

    /** @return list<string> */
    public static function names(): array
    {
        return [...array_keys(self::ISO), ...array_keys(self::INCHES)];
    }
}
