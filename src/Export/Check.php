<?php

declare(strict_types=1);

namespace App\Export;

/** One line of the receipt made on reading an export back. */
final readonly class Check
{
    private function __construct(public string $what, public string $expected, public string $found, public bool $holds)
    {
    }

    public static function count(string $what, int $expected, int $found): self
    {
        return new self($what, (string) $expected, (string) $found, $expected === $found);
    }

    /** Metres. */
    public static function difference(string $what, float $largest, float $allowed): self
    {
        $found = is_finite($largest) ? \sprintf('%.3f mm', 1000.0 * $largest) : 'some are missing';

        return new self($what, \sprintf('within %.2f mm', 1000.0 * $allowed), $found, $largest <= $allowed);
    }
}
