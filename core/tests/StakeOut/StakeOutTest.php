<?php

declare(strict_types=1);

namespace Mensura\Tests\StakeOut;

use Mensura\StakeOut\SurfaceUnder;
use Mensura\StakeOut\ToLine;
use Mensura\StakeOut\ToPoint;
use PHPUnit\Framework\Attributes\CoversClass;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

#[CoversClass(ToPoint::class)]
#[CoversClass(ToLine::class)]
#[CoversClass(SurfaceUnder::class)]
final class StakeOutTest extends TestCase
{
    /**
     * The inverse of plane coordinates in each quadrant (3-4-5 triangles, exact), and what a person walking sees (common practice).
     *
     * @return iterable<string, array{array{float, float}, float, float, float, float, float}>
     */
    public static function ways(): iterable
    {
        yield 'walking north, mark ahead on the right' => [[3.0, 4.0], 0.0, 5.0, 36.8698976458, 4.0, 3.0];
        yield 'walking north, mark behind on the right' => [[4.0, -3.0], 0.0, 5.0, 126.8698976458, -3.0, 4.0];
        yield 'walking east, mark behind' => [[-5.0, 0.0], 90.0, 5.0, 270.0, -5.0, 0.0];
        yield 'walking south, mark north east is behind and left' => [[3.0, 4.0], 180.0, 5.0, 36.8698976458, -4.0, -3.0];
        yield 'walking to it' => [[-6.0, -8.0], 216.8698976458, 10.0, 216.8698976458, 10.0, 0.0];
    }

    /** @param array{float, float} $away */
    #[DataProvider('ways')]
    public function testMarkFromWhereOneStands(
        array $away, float $heading, float $distance, float $bearing, float $forward, float $right,
    ): void {
        $to = ToPoint::of([500000.0, 4000000.0, 100.25], [500000.0 + $away[0], 4000000.0 + $away[1], 100.0], deg2rad($heading));
        self::assertEqualsWithDelta(
            [$distance, $bearing, $forward, $right, -0.25],
            [$to->distance, rad2deg($to->bearing), $to->forward, $to->right, $to->fill], 1e-8,
        );
        self::assertNull(ToPoint::of([0.0, 0.0, null], [1.0, 1.0, 2.0], 0.0)->fill);
    }

    public function testStationAndOffsetAlongALine(): void
    {
        // 30 m north, then 40 m east: stations 0, 30, 70.
        [$x, $y, $z] = [[0.0, 0.0, 40.0], [0.0, 30.0, 30.0], [10.0, 13.0, 13.0]];
        $at = static fn (float $e, float $n): array => array_map(
            static fn (float $v): float => round($v, 9), array_values(array_filter((array) ToLine::of($e, $n, $x, $y, $z), is_float(...))),
        );
        self::assertSame([10.0, 2.0, 0.0, 10.0, 11.0], $at(2.0, 10.0), 'right of the way north');
        self::assertSame([10.0, -2.0, 0.0, 10.0, 11.0], $at(-2.0, 10.0), 'left of it');
        self::assertSame([40.0, -4.0, 10.0, 30.0, 13.0], $at(10.0, 34.0), 'left of the way east');
        // Outside the corner no place is abeam: the corner itself is nearest.
        self::assertSame([30.0, -5.0, 0.0, 30.0, 13.0], $at(-3.0, 34.0));
        self::assertTrue(ToLine::of(0.5, -3.0, $x, $y)?->beyond);
        self::assertTrue(ToLine::of(44.0, 30.5, $x, $y)?->beyond);
        self::assertFalse(ToLine::of(2.0, 10.0, $x, $y)?->beyond);
        self::assertNull(ToLine::of(1.0, 1.0, [5.0, 5.0], [5.0, 5.0]), 'a line without length');
        self::assertEqualsWithDelta(1015.0, ToLine::of(3.0, 15.0, $x, $y, null, [1000.0, 1030.0, 1070.0])?->station, 1e-9);
    }

    public function testHeightOfThePlaneOfATriangle(): void
    {
        // Two triangles of the plane h = 50 + 0.1 e - 0.2 n, one of them clockwise; heights of a plane are exact (textbook).
        $plane = static fn (float $e, float $n): float => 50.0 + 0.1 * $e - 0.2 * $n;
        [$x, $y] = [[0.0, 10.0, 10.0, 0.0], [0.0, 0.0, 10.0, 10.0]];
        $z = array_map($plane, $x, $y);
        $places = [[2.0, 1.0], [1.0, 9.0], [5.0, 5.0], [0.0, 10.0], [11.0, 5.0], [5.0, -0.001]];
        $heights = SurfaceUnder::of($x, $y, $z, [0, 1, 2, 0, 3, 2], $places);
        foreach (\array_slice($places, 0, 4) as $i => [$e, $n]) {
            self::assertEqualsWithDelta($plane($e, $n), $heights[$i], 1e-12);
        }
        self::assertSame([null, null], \array_slice($heights, 4));
        // A slab above it is what is walked on.
        $above = SurfaceUnder::of([...$x, ...$x], [...$y, ...$y], [...$z, 60.0, 60.0, 60.0, 60.0], [0, 1, 2, 4, 6, 5], [[8.0, 1.0]]);
        self::assertSame([60.0], $above);
    }
}
