<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/**
 * Where a rover stood still on its way (stop and go): stretches in which it stays about one place. Seconds; metres.
 */
final class Stops
{
    /** A stop lasts so long and has so many epochs. */
    private const LEAST_SECONDS = 4.0;
    private const LEAST_EPOCHS = 5;

    /** How far an epoch may lie off the middle of a stop besides its own precision, metres. */
    private const RADIUS = 0.06;

    /** And in standard deviations. */
    private const SIGMAS = 2.5;

    /** @var list<array{int, int}> first epoch and one past the last of each */
    public array $stops = [];

    /**
     * @param list<float> $times growing
     * @param list<float> $east
     * @param list<float> $north
     * @param list<float> $sd    of each place in plan
     */
    public function __construct(array $times, array $east, array $north, array $sd)
    {
        $count = \count($times);
        $first = 0;
        while ($first < $count) {
            $last = self::stretch($east, $north, $sd, $first);
            if ($last - $first >= self::LEAST_EPOCHS && $times[$last - 1] - $times[$first] >= self::LEAST_SECONDS) {
                $this->stops[] = [$first, $last];
                $first = $last;
            } else {
                ++$first;
            }
        }
    }

    /**
     * One past the last epoch that lies with those from the first on.
     *
     * @param list<float> $east
     * @param list<float> $north
     * @param list<float> $sd
     */
    private static function stretch(array $east, array $north, array $sd, int $first): int
    {
        $e = $east[$first];
        $n = $north[$first];
        $count = \count($east);
        for ($k = $first + 1; $k < $count; ++$k) {
            if (hypot($east[$k] - $e, $north[$k] - $n) > self::RADIUS + self::SIGMAS * $sd[$k]) {
                return $k;
            }
            $weight = 1.0 / ($k - $first + 1);
            $e += $weight * ($east[$k] - $e);
            $n += $weight * ($north[$k] - $n);
        }

        return $count;
    }
}
