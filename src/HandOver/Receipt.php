<?php

declare(strict_types=1);

namespace App\HandOver;

/** Lines of the check made on reading an export back. */
final class Receipt
{
    /** @return array{what: string, expected: string, found: string, holds: bool} */
    public static function count(string $what, int $expected, int $found): array
    {
        return ['what' => $what, 'expected' => (string) $expected, 'found' => (string) $found, 'holds' => $expected === $found];
    }

    /** @return array{what: string, expected: string, found: string, holds: bool} */
    public static function difference(string $what, float $largest, float $allowed): array
    {
        return ['what' => $what, 'expected' => \sprintf('within %.2f mm', 1000.0 * $allowed), 'found' => is_finite($largest) ? \sprintf('%.3f mm', 1000.0 * $largest) : 'some are missing', 'holds' => $largest <= $allowed];
    }
}
