<?php

declare(strict_types=1);

namespace Mensura\Network\Suspects;

/** Readings that differ from a recorded one by two neighbouring digits exchanged or one digit changed. */
final class DigitSlips
{
    private const DECIMALS = 4;

    /**
     * The one that comes nearest to what has to be added.
     *
     * @return ?array{float, string} change, and the reading as it would be written
     */
    public static function nearest(float $recorded, float $wanted): ?array
    {
        $text = rtrim(rtrim(number_format($recorded, self::DECIMALS, '.', ''), '0'), '.');
        if (!str_contains($text, '.')) {
            $text .= '.000';
        }
        $text = str_pad($text, strpos($text, '.') + 4, '0');
        $best = null;
        foreach (self::variants($text) as $variant) {
            $change = (float) $variant - $recorded;
            if ((float) $variant > 0.0 && abs($change) > 1e-9 && (null === $best || abs($change - $wanted) < abs($best[0] - $wanted))) {
                $best = [$change, $variant];
            }
        }

        return $best;
    }

    /** @return \Generator<string> */
    private static function variants(string $text): \Generator
    {
        $digits = [];
        for ($k = 0, $n = \strlen($text); $k < $n; ++$k) {
            if ('.' !== $text[$k]) {
                $digits[] = $k;
            }
        }
        foreach ($digits as $a => $k) {
            for ($d = 0; $d < 10; ++$d) {
                $variant = $text;
                $variant[$k] = (string) $d;
                yield $variant;
            }
            if (isset($digits[$a + 1])) {
                $variant = $text;
                $variant[$k] = $text[$digits[$a + 1]];
                $variant[$digits[$a + 1]] = $text[$k];
                yield $variant;
            }
        }
    }
}
