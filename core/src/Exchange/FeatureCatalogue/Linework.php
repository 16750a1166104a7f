<?php

declare(strict_types=1);

namespace Mensura\Exchange\FeatureCatalogue;

/**
 * Lines from the codes of points in the order they were measured. A code is followed by a blank and words: "KERB start", "KERB",
 * "KERB arc", "KERB end", "KERB close"; several lines of one code at a time have a number behind it, "KERB 2 start". A code that comes
 * without "start" goes on with its line, or begins one where it is the code of a line type.
 *
 * @phpstan-type Shot array{name: string, code: string, e: float, n: float, h: ?float}
 * @phpstan-type Line array{
 *     code: string, number: string, points: list<string>, closed: bool, vertices: list<array{float, float, ?float}>,
 * }
 */
final class Linework
{
    public const START = 'start';
    public const END = 'end';
    public const CLOSE = 'close';
    public const ARC = 'arc';
    private const WORDS = [self::START, self::END, self::CLOSE, self::ARC];

    /** Chords that leave an arc by no more than this, metres. */
    private const SAG = 0.005;

    /**
     * @param list<Shot>   $points
     * @param list<string> $lineCodes codes that draw lines
     * @param array<string, bool> $areas of these: whether it is an area, which is closed however it ends
     *
     * @return array{lines: list<Line>, faults: list<string>} vertices with the chords of arcs; points by name, as measured
     */
    public static function of(array $points, array $lineCodes, array $areas = []): array
    {
        $isLine = array_fill_keys($lineCodes, true);
        $open = $lines = $faults = [];
        foreach ($points as $p) {
            $words = preg_split('/\s+/', trim($p['code'])) ?: [];
            $code = (string) array_shift($words);
            $number = [] !== $words && ctype_digit($words[0]) ? (string) array_shift($words) : '';
            $said = array_values(array_intersect(self::WORDS, array_map(strtolower(...), $words)));
            if (!isset($isLine[$code])) {
                continue;
            }
            $key = "$code $number";
            if (\in_array(self::START, $said, true) || !isset($open[$key])) {
                if (isset($open[$key])) {
                    $lines[] = self::finished($open[$key], $areas[$code] ?? false, $faults);
                }
                $open[$key] = ['code' => $code, 'number' => $number, 'points' => [], 'arcs' => []];
            }
            $open[$key]['points'][] = $p;
            $open[$key]['arcs'][] = \in_array(self::ARC, $said, true);
            $isClosed = \in_array(self::CLOSE, $said, true) || ($areas[$code] ?? false) && \in_array(self::END, $said, true);
            if ($isClosed || \in_array(self::END, $said, true)) {
                $lines[] = self::finished($open[$key], $isClosed, $faults);
                unset($open[$key]);
            }
        }
        foreach ($open as $line) {
            $lines[] = self::finished($line, $areas[$line['code']] ?? false, $faults);
        }

        return ['lines' => array_values(array_filter($lines)), 'faults' => $faults];
    }

    /**
     * @param array{code: string, number: string, points: list<Shot>, arcs: list<bool>} $line
     * @param list<string>                                                             $faults
     *
     * @return ?Line
     */
    private static function finished(array $line, bool $isClosed, array &$faults): ?array
    {
        $names = array_column($line['points'], 'name');
        $words = trim($line['code'].' '.$line['number']);
        if (\count($names) < ($isClosed ? 3 : 2)) {
            $noun = 1 === \count($names) ? 'point' : 'points';
            $faults[] = \sprintf('%s at %s is a line of %d %s', $words, implode(', ', $names), \count($names), $noun);

            return null;
        }
        $places = array_map(static fn (array $p): array => [$p['e'], $p['n'], $p['h']], $line['points']);
        $vertices = [$places[0]];
        for ($i = 1, $n = \count($places); $i < $n; ++$i) {
            // The middle one of three places on a bend is said to be on the arc.
            if ($line['arcs'][$i] && $i + 1 < $n) {
                $arc = self::arc($places[$i - 1], $places[$i], $places[$i + 1]);
                if (null === $arc) {
                    $faults[] = \sprintf('%s at %s: three places of an arc lie on a line', $words, $names[$i]);
                    $arc = [$places[$i], $places[$i + 1]];
                }
                array_push($vertices, ...$arc);
                ++$i;
                continue;
            }
            $vertices[] = $places[$i];
        }
        if ($isClosed) {
            $vertices[] = $places[0];
        }

        return ['code' => $line['code'], 'number' => $line['number'], 'points' => $names, 'closed' => $isClosed, 'vertices' => $vertices];
    }

    /**
     * Chords of the circle through three places, without the first; heights grow evenly to either side of the middle one.
     *
     * @param array{float, float, ?float} $a
     * @param array{float, float, ?float} $b
     * @param array{float, float, ?float} $c
     *
     * @return ?list<array{float, float, ?float}>
     */
    private static function arc(array $a, array $b, array $c): ?array
    {
        [$bx, $by, $cx, $cy] = [$b[0] - $a[0], $b[1] - $a[1], $c[0] - $a[0], $c[1] - $a[1]];
        $d = 2.0 * ($bx * $cy - $by * $cx);
        if (abs($d) < 1e-9 * max(1e-9, hypot($bx, $by) * hypot($cx, $cy))) {
            return null;
        }
        [$b2, $c2] = [$bx * $bx + $by * $by, $cx * $cx + $cy * $cy];
        [$ux, $uy] = [($cy * $b2 - $by * $c2) / $d, ($bx * $c2 - $cx * $b2) / $d];
        $radius = hypot($ux, $uy);
        $step = 2.0 * acos(max(0.0, 1.0 - self::SAG / $radius));
        $vertices = [];
        foreach ([[$a, $b], [$b, $c]] as [$from, $to]) {
            $start = atan2($from[1] - $a[1] - $uy, $from[0] - $a[0] - $ux);
            $turn = atan2($to[1] - $a[1] - $uy, $to[0] - $a[0] - $ux) - $start;
            // The way that goes through the middle place.
            $turn = $d > 0.0 ? fmod($turn + 4.0 * \M_PI, 2.0 * \M_PI) : -fmod(4.0 * \M_PI - $turn, 2.0 * \M_PI);
            $parts = max(1, (int) ceil(abs($turn) / max($step, 1e-3)));
            for ($k = 1; $k < $parts; ++$k) {
                $t = $k / $parts;
                $h = null === $from[2] || null === $to[2] ? null : $from[2] + $t * ($to[2] - $from[2]);
                $vertices[] = [$a[0] + $ux + $radius * cos($start + $t * $turn), $a[1] + $uy + $radius * sin($start + $t * $turn), $h];
            }
            $vertices[] = $to;
        }

        return $vertices;
    }
}
