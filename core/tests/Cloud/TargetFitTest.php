<?php

declare(strict_types=1);

namespace Mensura\Tests\Cloud;

use Mensura\Cloud\TargetFit;
use PHPUnit\Framework\Attributes\CoversClass;
use PHPUnit\Framework\TestCase;

/** Targets moved by a motion that is known. */
#[CoversClass(TargetFit::class)]
final class TargetFitTest extends TestCase
{
    private const SEEN = [[10.0, 20.0, 2.0], [30.0, 22.0, 3.0], [12.0, 41.0, 6.0], [28.0, 38.0, 1.5]];

    /**
     * Turned about the vertical, then about east (rotations of a textbook), and moved.
     *
     * @param array{float, float, float} $p
     *
     * @return array{float, float, float}
     */
    private static function moved(array $p, float $heading, float $tilt): array
    {
        [$c, $s] = [cos(deg2rad($heading)), sin(deg2rad($heading))];
        [$x, $y, $z] = [$c * $p[0] - $s * $p[1], $s * $p[0] + $c * $p[1], $p[2]];
        [$c, $s] = [cos(deg2rad($tilt)), sin(deg2rad($tilt))];

        return [$x + 493000.0, $c * $y - $s * $z + 6028000.0, $s * $y + $c * $z + 220.0];
    }

    public function testTheMotionIsFound(): void
    {
        foreach ([[0.0, 0.0], [35.0, 0.4], [-170.0, -2.0], [90.0, 25.0]] as [$heading, $tilt]) {
            $given = array_map(static fn (array $p): array => self::moved($p, $heading, $tilt), self::SEEN);
            $fit = TargetFit::of(self::SEEN, $given);
            self::assertTrue($fit->isTilted);
            self::assertEqualsWithDelta(0.0, $fit->rms, 1e-7);
            // A point that is no target goes along.
            [[$e], [$n], [$h]] = $fit->apply([5.0], [60.0], [9.0]);
            self::assertEqualsWithDelta(self::moved([5.0, 60.0, 9.0], $heading, $tilt), [$e, $n, $h], 1e-6);
            self::assertNull(TargetFit::exchanged(self::SEEN, $given));
            // Two of them with each other's names are found out.
            [$given[1], $given[2]] = [$given[2], $given[1]];
            self::assertSame([1, 2], TargetFit::exchanged(self::SEEN, $given));
        }
    }

    /** One target moves; two turn about the vertical; three on a line do not tilt: common practice with a levelled scanner. */
    public function testFewTargetsKeepItLevel(): void
    {
        $given = array_map(static fn (array $p): array => self::moved($p, 20.0, 0.0), self::SEEN);
        $one = TargetFit::of([self::SEEN[0]], [$given[0]]);
        self::assertEqualsWithDelta([0.0, false], [$one->turn(), $one->isTilted], 1e-12);
        $two = TargetFit::of(\array_slice(self::SEEN, 0, 2), \array_slice($given, 0, 2));
        self::assertEqualsWithDelta(20.0, $two->turn(), 1e-9);
        self::assertFalse($two->isTilted);
        self::assertEqualsWithDelta(0.0, $two->rms, 1e-9);
        $line = [[0.0, 0.0, 0.0], [10.0, 0.0, 0.0], [20.0, 0.1, 0.0]];
        self::assertFalse(TargetFit::of($line, array_map(static fn (array $p): array => self::moved($p, 5.0, 0.0), $line))->isTilted);
    }

    /** The residuals of a least squares fit are no longer than those of any other motion: here of the true one. */
    public function testResidualsAreLeast(): void
    {
        $given = [];
        $noise = [[0.004, -0.002, 0.003], [-0.003, 0.005, -0.001], [0.002, 0.001, -0.004], [-0.003, -0.004, 0.002]];
        $true = 0.0;
        foreach (self::SEEN as $i => $p) {
            $q = self::moved($p, 12.0, 1.0);
            $given[] = [$q[0] + $noise[$i][0], $q[1] + $noise[$i][1], $q[2] + $noise[$i][2]];
            $true += $noise[$i][0] ** 2 + $noise[$i][1] ** 2 + $noise[$i][2] ** 2;
        }
        $fit = TargetFit::of(self::SEEN, $given);
        self::assertLessThan(sqrt($true / 4.0), $fit->rms);
        foreach ([0, 1, 2] as $axis) {
            self::assertEqualsWithDelta(0.0, array_sum(array_column($fit->off, $axis)), 1e-9);
        }
    }
}
