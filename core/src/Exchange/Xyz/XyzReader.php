<?php

declare(strict_types=1);

namespace Mensura\Exchange\Xyz;

use Mensura\Fault\UnusableInput;

/** Points as lines of three and more numbers, without a header: easting, northing, height. Lines that begin with #, // or ; are remarks. */
final class XyzReader
{
    /**
     * @param resource $stream
     *
     * @return array{list<float>, list<float>, list<float>} metres
     *
     * @throws UnusableInput naming the line
     */
    public static function read($stream, string $name): array
    {
        $x = $y = $z = [];
        $number = 0;
        while (false !== $line = fgets($stream)) {
            ++$number;
            $text = trim($line, " \t\r\n\xEF\xBB\xBF");
            if ('' === $text || '#' === $text[0] || ';' === $text[0] || str_starts_with($text, '//')) {
                continue;
            }
            $values = self::numbers($text);
            if (null === $values) {
                throw new UnusableInput("$name line $number", 'is not three or more numbers: easting, northing, height');
            }
            [$x[], $y[], $z[]] = $values;
        }

        return [$x, $y, $z];
    }

    /** @return ?array{float, float, float} the first three of a line of numbers; null where it is none */
    public static function numbers(string $text): ?array
    {
        $words = preg_split('/[\s,;]+/', trim($text, " \t\r\n,;")) ?: [];
        if (\count($words) < 3) {
            return null;
        }
        foreach ($words as $word) {
            if (!is_numeric($word) || !is_finite((float) $word)) {
                return null;
            }
        }

        return [(float) $words[0], (float) $words[1], (float) $words[2]];
    }
}
