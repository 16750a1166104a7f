<?php

declare(strict_types=1);

namespace Mensura\Tests\Surface;

use Mensura\Surface\Thinning;
use PHPUnit\Framework\TestCase;

final class ThinningTest extends TestCase
{
    /** By brute force: of every square the point nearest to its middle, each once. */
    public function testOnePointToASquare(): void
    {
        $random = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar(5));
        $x = $y = [];
        for ($i = 0; $i < 2000; ++$i) {
            $x[] = 493000.0 + $random->getInt(0, 30000) / 1000.0;
            $y[] = 6028000.0 + $random->getInt(0, 20000) / 1000.0;
        }
        $kept = Thinning::kept($x, $y, 2.5);
        $best = [];
        [$west, $south] = [min($x), min($y)];
        foreach ($x as $i => $px) {
            $u = ($px - $west) / 2.5;
            $v = ($y[$i] - $south) / 2.5;
            $away = hypot($u - floor($u) - 0.5, $v - floor($v) - 0.5);
            $square = floor($u).' '.floor($v);
            if (!isset($best[$square]) || $away < $best[$square][0]) {
                $best[$square] = [$away, $i];
            }
        }
        $wanted = array_column($best, 1);
        sort($wanted);
        self::assertSame($wanted, $kept);
        self::assertSame([], Thinning::kept([], [], 1.0));
        self::assertSame([0], Thinning::kept([1.0, 1.0], [2.0, 2.0], 1.0), 'of two alike the first');
    }
}
