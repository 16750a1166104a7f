<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

use Mensura\Quantity\Unit;

/** What is odd about the sights of a total-station book as a whole: heights that are missing, angles of another unit. */
final class BookDoubts
{
    /** About this a level sight reads when gon are taken for degrees. */
    private const GON = [97.0, 103.0];
    private const DEGREES = [87.0, 93.0];
    /** Fewer sights of a station say nothing about its unit. */
    private const LEAST = 3;

    /**
     * @param list<Pointing>         $pointings
     * @param array{hi: list<int>, ht: list<int>} $missing lines of sights with a zenith angle or a slope distance but without that height
     * @param ?Unit                  $unit      of the zenith angles
     *
     * @return list<Finding>
     */
    public static function of(array $pointings, array $missing, ?Unit $unit): array
    {
        $findings = [];
        foreach (['hi' => 'instrument', 'ht' => 'target'] as $key => $word) {
            $lines = $missing[$key];
            if ([] !== $lines) {
                $all = \count($lines) === \count($pointings);
                $findings[] = new Finding(Finding::WARNING, $all ? null : $lines[0], $all
                    ? "no $word height is stated anywhere; all are taken as 0, so heights of points will be wrong by them"
                    : \sprintf('the %s height is missing here%s and taken as 0', $word, 1 === \count($lines) ? '' : \sprintf(
                        ' and on %d more line(s)', \count($lines) - 1,
                    )));
            }
        }
        if (Unit::Degree !== $unit && Unit::Gon !== $unit) {
            return $findings;
        }
        $byStation = [];
        foreach ($pointings as $p) {
            if (null !== $p->zenith) {
                $byStation[$p->station][] = $p->zenith / $unit->factor(); // as it was written
            }
        }
        $near = static fn (float $from, float $to): array => array_keys(array_filter(
            $byStation, static fn (array $z): bool => \count($z) >= self::LEAST && self::median($z) > $from && self::median($z) < $to,
        ));
        $gon = $near(...self::GON);
        $all = array_merge(...array_values($byStation));
        if ([] !== $gon && [] !== $near(...self::DEGREES)) {
            $words = 'the zenith angles of %s gather about 100, those of others about 90: are degrees and gon mixed? Bring the two in as '
                .'separate files';
            $findings[] = new Finding(
                Finding::WARNING, null, \sprintf($words, implode(', ', \array_slice(array_map(strval(...), $gon), 0, 5))),
            );
        } elseif (Unit::Degree === $unit
            && \count($all) >= self::LEAST
            && self::median($all) > self::GON[0]
            && self::median($all) < self::GON[1]
        ) {
            $words = 'the zenith angles gather about %.1f degrees; a level sight reads 90 degrees or 100 gon. Are these gon?';
            $findings[] = new Finding(Finding::WARNING, null, \sprintf($words, self::median($all)));
        }

        return $findings;
    }

    /** @param list<float> $values */
    private static function median(array $values): float
    {
        sort($values);

        return $values[intdiv(\count($values), 2)];
    }
}
