<?php

declare(strict_types=1);

namespace Mensura\Tests\Cloud;

use Demo\Street;
use Mensura\Cloud\PlaneField;
use Mensura\Cloud\RigidFit;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;

/** A scan of a made-up street, moved by a motion that the test alone knows, is laid onto another scan of the same street. */
final class RigidFitTest extends TestCase
{
    private const RADIUS = 2.0;

    /** @return array{list<float>, list<float>, list<float>} from the middle of the street */
    private static function scan(Street $street, int $points): array
    {
        $middle = $street->placed([20.0, 0.0, 0.0]);
        $rows = $street->drive(0.0, static fn (float $t): array => [0.0, 0.0, 0.0], $points)['points'];
        $axis = static fn (int $k): array => array_map(static fn (array $r): float => $r[$k + 1] - $middle[$k], $rows);

        return [$axis(0), $axis(1), $axis(2)];
    }

    /**
     * Turned about the upright axis and tilted, then shifted.
     *
     * @param array{list<float>, list<float>, list<float>} $points
     *
     * @return array{list<float>, list<float>, list<float>}
     */
    private static function wronged(array $points, float $turn, float $tilt, float $e, float $n, float $h): array
    {
        [$c, $s, $tc, $ts] = [cos(deg2rad($turn)), sin(deg2rad($turn)), cos(deg2rad($tilt)), sin(deg2rad($tilt))];
        foreach ($points[0] as $i => $x) {
            [$x, $y, $z] = [$c * $x - $s * $points[1][$i], $s * $x + $c * $points[1][$i], $points[2][$i]];
            [$points[0][$i], $points[1][$i], $points[2][$i]] = [$x + $e, $tc * $y - $ts * $z + $n, $ts * $y + $tc * $z + $h];
        }

        return $points;
    }

    #[TestWith([0.0, 0.0, 0.6, -0.4, 0.3])]
    #[TestWith([1.2, 0.4, 0.4, 0.3, -0.2])]
    #[TestWith([-2.0, -0.5, -0.8, 0.7, 0.1])]
    public function testAKnownMotionIsFound(float $turn, float $tilt, float $e, float $n, float $h): void
    {
        $street = new Street(40.0, true, 7);
        $here = self::scan($street, 3_000);
        $truth = self::scan($street, 1_500);
        $wrong = self::wronged($truth, $turn, $tilt, $e, $n, $h);
        $fit = RigidFit::of(new PlaneField(...[...$here, self::RADIUS]), ...[...$wrong, self::RADIUS]);
        $back = $fit->apply(...$wrong);

        $worst = 0.0;
        foreach ($truth as $k => $axis) {
            foreach ($axis as $i => $v) {
                $worst = max($worst, abs($back[$k][$i] - $v));
            }
        }
        self::assertLessThan(0.01, $worst, 'every point within a centimetre of where it was');
        self::assertEqualsWithDelta(hypot($turn, $tilt), $fit->turn(), 0.02);
        // What both drives saw; cars stand elsewhere, edges have no surface.
        self::assertGreaterThan(0.55, $fit->overlap);
        self::assertLessThan(0.012, $fit->rms);
    }

    public function testPlainWallsDoNotHoldAMotion(): void
    {
        $street = new Street(40.0, false, 7);
        $field = new PlaneField(...[...self::scan($street, 2_000), self::RADIUS]);
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage('too few surfaces that look in different directions');
        RigidFit::of($field, ...[...self::wronged(self::scan($street, 1_000), 0.0, 0.0, 0.1, 0.1, 0.0), self::RADIUS]);
    }

    public function testCloudsElsewhereDoNotOverlap(): void
    {
        $street = new Street(40.0, true, 7);
        $field = new PlaneField(...[...self::scan($street, 2_000), self::RADIUS]);
        $this->expectExceptionMessage('lies on the other with 0 % of its points only');
        RigidFit::of($field, ...[...self::wronged(self::scan($street, 1_000), 0.0, 0.0, 500.0, 0.0, 0.0), self::RADIUS]);
    }
}
