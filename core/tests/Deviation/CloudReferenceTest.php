<?php

declare(strict_types=1);

namespace Mensura\Tests\Deviation;

use Mensura\Deviation\Along;
use Mensura\Deviation\CheckAccuracy;
use Mensura\Deviation\CloudReference;
use Mensura\Fault\UnusableInput;
use Mensura\Tests\Fixture;
use PHPUnit\Framework\TestCase;

final class CloudReferenceTest extends TestCase
{
    /** Heights and slopes of the planes R's lm fits through the same cloud (fixtures/cloud/make.R, R 4.2.2). */
    public function testPlanesAsRFitsThem(): void
    {
        $f = Fixture::json('cloud/expected.json');
        $cloud = new CloudReference($f['x'], $f['y'], $f['z'], (float) $f['radius']);
        $zero = array_fill(0, \count($f['px']), 0.0);
        $vertical = $cloud->deviations($f['px'], $f['py'], $zero, Along::Vertical);
        $normal = $cloud->deviations($f['px'], $f['py'], $zero, Along::Normal);
        foreach ($f['height'] as $i => $height) {
            self::assertEqualsWithDelta(-$height, $vertical[$i], 1e-8);
            self::assertEqualsWithDelta(-$height / sqrt(1.0 + $f['slope'][$i] ** 2), $normal[$i], 1e-7);
        }
        self::assertEqualsWithDelta(max($f['slope']), $cloud->steepest(), 1e-8);
    }

    public function testNothingIsCarriedOnBesideTheCloud(): void
    {
        $x = $y = $z = [];
        for ($i = 0; $i < 100; ++$i) {
            $x[] = 500000.0 + $i % 10;
            $y[] = 4000000.0 + intdiv($i, 10);
            $z[] = 50.0 + 0.1 * ($i % 10);
        }
        $cloud = new CloudReference($x, $y, $z);
        self::assertEqualsWithDelta(2.7, $cloud->radius, 0.01, 'three mean spacings');
        $found = $cloud->deviations(
            [500004.5, 499999.5, 500004.5, 500200.0], [4000004.5, 4000004.5, 4000009.5, 4000200.0], [51.0, 51.0, 51.0, 51.0],
            Along::Vertical,
        );
        self::assertEqualsWithDelta(0.55, $found[0], 1e-9);
        self::assertNan($found[1]);
        self::assertNan($found[2]);
        self::assertNan($found[3]);
    }

    public function testPointsOnOneLineDetermineNoPlane(): void
    {
        $cloud = new CloudReference([0.0, 1.0, 2.0, 3.0, 4.0], [0.0, 1.0, 2.0, 3.0, 4.0], [1.0, 1.0, 1.0, 1.0, 1.0], 10.0);
        self::assertNan($cloud->plane(2.0, 2.0)[0]);
    }

    /** One stray point a thousand kilometres off does not fill the memory. */
    public function testAStrayPointFarAway(): void
    {
        $x = [0.0, 1.0, 0.0, 1.0, 1e6];
        $y = [0.0, 0.0, 1.0, 1.0, 1e6];
        $cloud = new CloudReference($x, $y, [5.0, 5.0, 5.0, 5.0, 0.0], 2.0);
        self::assertEqualsWithDelta(5.0, $cloud->plane(0.5, 0.5)[0], 1e-12);
    }

    public function testTooFewPoints(): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage('there are 3');
        new CloudReference([0.0, 1.0, 0.0], [0.0, 0.0, 1.0], [1.0, 1.0, 1.0]);
    }

    /**
     * FGDC-STD-007.3-1998, appendix 3-A: the factors are those of the normal distribution (R's qnorm and qchisq to the standard's
     * four decimals), and with equal components 2.4477 / sqrt(2) is 1.7308 of the radial error.
     */
    public function testAccuracyAtNinetyFivePercent(): void
    {
        $f = Fixture::json('cloud/expected.json');
        $d = [0.02, -0.02, 0.02, -0.02];
        $equal = new CheckAccuracy($d, $d, [0.03, 0.01, -0.03, -0.01]);
        self::assertEqualsWithDelta(0.02 * sqrt(2.0), $equal->radial, 1e-15);
        self::assertEqualsWithDelta(1.7308 * $equal->radial, $equal->horizontal, 1e-6);
        self::assertEqualsWithDelta($f['circular'] * 0.02, $equal->horizontal, 1e-6);
        self::assertEqualsWithDelta($f['vertical'] * sqrt(0.0005), $equal->vertical, 1e-6);
        self::assertSame(4, $equal->axes['h']['count']);
        self::assertEqualsWithDelta(0.0, $equal->axes['h']['mean'], 1e-15);
        $unlike = new CheckAccuracy([0.03, -0.03], [0.02, -0.02], []);
        self::assertEqualsWithDelta(2.4477 * 0.5 * 0.05, $unlike->horizontal, 1e-12);
        self::assertNull($unlike->vertical);
        $tooUnlike = new CheckAccuracy([0.05, -0.05], [0.02, -0.02], []);
        self::assertNull($tooUnlike->horizontal, 'the standard gives no figure below a ratio of 0.6');
        $nothing = new CheckAccuracy([], [], []);
        self::assertSame([null, null, []], [$nothing->radial, $nothing->vertical, $nothing->axes]);
    }
}
