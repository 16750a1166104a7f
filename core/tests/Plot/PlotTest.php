<?php

declare(strict_types=1);

namespace Mensura\Tests\Plot;

use Mensura\Fault\UnusableInput;
use Mensura\Plot\PaperSize;
use Mensura\Plot\Placement;
use Mensura\Plot\ScaleChoice;
use PHPUnit\Framework\Attributes\CoversClass;
use PHPUnit\Framework\TestCase;

#[CoversClass(PaperSize::class)]
#[CoversClass(Placement::class)]
#[CoversClass(ScaleChoice::class)]
final class PlotTest extends TestCase
{
    /** ISO 216: A0 is a square metre, each size half of the one before, sides as 1 to the root of 2, to whole millimetres. */
    public function testPaperOfTheStandards(): void
    {
        $before = 1.0e6;
        foreach (['A0', 'A1', 'A2', 'A3', 'A4'] as $i => $name) {
            $p = PaperSize::named($name, false);
            self::assertEqualsWithDelta(1.0e6 / 2 ** $i, $p->width * $p->height, 1.0e6 / 2 ** $i * 0.004, $name);
            self::assertEqualsWithDelta(\M_SQRT2, $p->height / $p->width, 0.005);
            self::assertLessThan($before + 1.0, $p->width * $p->height);
            $before = $p->width * $p->height;
        }
        $wide = PaperSize::named('ANSI D', true);
        self::assertEqualsWithDelta([863.6, 558.8], [$wide->width, $wide->height], 1e-9, 'ASME Y14.1: 34 by 22 inches');
        self::assertEqualsWithDelta(914.4, PaperSize::named('ARCH E', false)->width, 1e-9);
        $this->expectException(UnusableInput::class);
        PaperSize::named('B5', false);
    }

    public function testAMetreIsTwoMillimetresAtFiveHundred(): void
    {
        $p = new Placement(20.0, 10.0, 200.0, 100.0, 500000.0, 4000000.0, 500.0);
        self::assertSame([120.0, 60.0], $p->paper(500000.0, 4000000.0));
        self::assertEqualsWithDelta([140.0, 60.0], $p->paper(500010.0, 4000000.0), 1e-9, 'east is right');
        self::assertEqualsWithDelta([120.0, 40.0], $p->paper(500000.0, 4000010.0), 1e-9, 'north is up');
        $turned = new Placement(20.0, 10.0, 200.0, 100.0, 500000.0, 4000000.0, 500.0, 90.0);
        self::assertEqualsWithDelta([140.0, 60.0], $turned->paper(500000.0, 4000010.0), 1e-9, 'north points right');
        self::assertEqualsWithDelta([120.0, 80.0], $turned->paper(500010.0, 4000000.0), 1e-9, 'east points down');
        foreach ([0.0, 17.5, 200.0] as $rotation) {
            $q = new Placement(20.0, 10.0, 200.0, 100.0, 500000.0, 4000000.0, 1250.0, $rotation);
            self::assertEqualsWithDelta([500012.5, 3999990.25], $q->ground(...$q->paper(500012.5, 3999990.25)), 1e-7);
            [$a, $b] = [$q->paper(500000.0, 4000000.0), $q->paper(500030.0, 4000040.0)];
            self::assertEqualsWithDelta(40.0, hypot($b[0] - $a[0], $b[1] - $a[1]), 1e-9, '50 m at 1:1250');
        }
    }

    public function testLinesEndAtTheWindow(): void
    {
        $p = new Placement(0.0, 0.0, 100.0, 50.0, 0.0, 0.0, 1000.0);
        self::assertSame([0.0, 25.0, 100.0, 25.0], $p->clipped(-50.0, 25.0, 150.0, 25.0));
        self::assertEqualsWithDelta([25.0, 0.0, 75.0, 50.0], $p->clipped(0.0, -25.0, 100.0, 75.0), 1e-12);
        self::assertSame([10.0, 10.0, 20.0, 20.0], $p->clipped(10.0, 10.0, 20.0, 20.0));
        self::assertNull($p->clipped(-10.0, 60.0, 110.0, 60.0));
        self::assertNull($p->clipped(-10.0, 40.0, 5.0, 80.0));
    }

    public function testGridLinesStandWhereTheirCoordinateIs(): void
    {
        $p = new Placement(0.0, 0.0, 200.0, 100.0, 1005.0, 2003.0, 500.0, 30.0);
        $lines = $p->grid(20.0);
        self::assertNotSame([], $lines);
        foreach ($lines as [$axis, $at, $x0, $y0, $x1, $y1]) {
            self::assertEqualsWithDelta(0.0, fmod($at, 20.0), 1e-9);
            foreach ([[$x0, $y0], [$x1, $y1]] as [$x, $y]) {
                self::assertEqualsWithDelta($at, $p->ground($x, $y)['e' === $axis ? 0 : 1], 1e-7);
                self::assertTrue($p->holds($x - 1e-9 * ($x - 100.0), $y - 1e-9 * ($y - 50.0)));
            }
        }
        // Upright: 100 m of eastings and 50 m of northings lie in the window: 995 is none, 1000 to 1040 are, and so on.
        $upright = new Placement(0.0, 0.0, 200.0, 100.0, 1005.0, 2003.0, 500.0);
        $at = array_map(static fn (array $l): string => $l[0].$l[1], $upright->grid(20.0));
        self::assertSame(['e960', 'e980', 'e1000', 'e1020', 'e1040', 'n1980', 'n2000', 'n2020'], $at);
    }

    public function testScalesThatFit(): void
    {
        // 180 m by 90 m in 380 by 180 mm: 1:500 needs 360 by 180 mm and fits exactly; 1:250 does not.
        self::assertSame([500.0, 1000.0, 2000.0, 2500.0], ScaleChoice::fitting(180.0, 90.0, 380.0, 180.0));
        self::assertSame(1000.0, ScaleChoice::fitting(180.0, 90.1, 380.0, 180.0)[0]);
        self::assertSame([20.0, 10.0, 100.0, 0.5], [
            ScaleChoice::grid(500.0), ScaleChoice::grid(250.0), ScaleChoice::grid(2000.0), ScaleChoice::grid(10.0),
        ]);
    }
}
