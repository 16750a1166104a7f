<?php

declare(strict_types=1);

namespace Mensura\Tests\Deviation;

use Mensura\Deviation\EpochChange;
use PHPUnit\Framework\TestCase;

/** Two surveys of one slab: what changed, place by place, against a search through all pairs. */
final class EpochChangeTest extends TestCase
{
    public function testNearestPlacesByBruteForce(): void
    {
        mt_srand(7);
        $draw = static fn (int $n, float $size): array => array_map(static fn (): float => mt_rand(0, 1000000) / 1e6 * $size, range(1, $n));
        [$x, $y, $d] = [$draw(300, 20.0), $draw(300, 14.0), $draw(300, 0.02)];
        [$oldX, $oldY, $oldD] = [$draw(260, 20.0), $draw(260, 14.0), $draw(260, 0.02)];
        $oldD[5] = \NAN;
        $d[9] = \NAN;
        $change = EpochChange::between($x, $y, $d, $oldX, $oldY, $oldD, 0.8);
        $missing = 0;
        foreach ($x as $i => $px) {
            $best = null;
            foreach ($oldX as $j => $ox) {
                $away = hypot($ox - $px, $oldY[$j] - $y[$i]);
                if (!is_nan($oldD[$j]) && $away <= 0.8 && (null === $best || $away < $best[0])) {
                    $best = [$away, $d[$i] - $oldD[$j]];
                }
            }
            if (null === $best || 9 === $i) {
                ++$missing;
                self::assertNan($change[$i]);
            } else {
                self::assertSame($best[1], $change[$i]);
            }
        }
        self::assertGreaterThan(5, $missing);
    }

    public function testWithoutAnEarlierSurveyNothingChanged(): void
    {
        self::assertNan(EpochChange::between([1.0], [1.0], [0.1], [], [], [], 1.0)[0]);
        self::assertSame(2.0, EpochChange::spacing(20.0, 10.0, 50));
    }
}
