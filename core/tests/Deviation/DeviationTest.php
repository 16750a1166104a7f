<?php

declare(strict_types=1);

namespace Mensura\Tests\Deviation;

use Mensura\Deviation\Along;
use Mensura\Deviation\DeviationStatistics;
use Mensura\Deviation\ElevationReference;
use Mensura\Deviation\FittedPlane;
use Mensura\Exchange\Points\PointFile;
use Mensura\Fault\UnusableInput;
use Mensura\Tests\Fixture;
use PHPUnit\Framework\TestCase;

final class DeviationTest extends TestCase
{
    /** Numbers small enough to be reckoned by hand. */
    public function testStatisticsAndBands(): void
    {
        $s = new DeviationStatistics([0.010, -0.020, \NAN, 0.030, 0.900, 0.000, -0.030], 0.5, [-0.02, 0.0, 0.03]);
        self::assertSame([7, 5, 1, 1], [$s->measured, $s->used, $s->beyond, $s->outside]);
        self::assertEqualsWithDelta(-0.002, $s->mean, 1e-15);
        self::assertEqualsWithDelta(sqrt(0.0023 / 5), $s->rms, 1e-15);
        self::assertEqualsWithDelta(sqrt((0.0023 - 5 * 0.002 ** 2) / 4), $s->sd, 1e-15);
        self::assertSame([-0.03, 0.03, 0.0], [$s->min, $s->max, $s->median]);
        self::assertSame([1, 1, 2, 1], array_column($s->bands, 'count'), 'from <= deviation < to');
        self::assertSame([20.0, 20.0, 40.0, 20.0], array_column($s->bands, 'percent'));
        self::assertSame([null, -0.02, 0.0, 0.03], array_column($s->bands, 'from'));
        self::assertSame([3, 6, 1, 0, 5], $s->worst, 'of equal sizes the first comes first');
        self::assertSame(0.9, $s->nearestBeyond);
        $one = new DeviationStatistics([0.004]);
        self::assertSame([null, 0.004, []], [$one->sd, $one->median, $one->bands]);
        self::assertNull((new DeviationStatistics([\NAN]))->mean);
    }

    public function testTheTwentyWorstOfMany(): void
    {
        $values = [];
        for ($i = 0; $i < 500; ++$i) {
            $values[] = sin(12.9898 * $i) * ($i % 7);
        }
        $sizes = array_map(abs(...), $values);
        arsort($sizes);
        self::assertSame(\array_slice(array_keys($sizes), 0, 20), (new DeviationStatistics($values))->worst);
    }

    public function testBandsThatDoNotGrowAreRefused(): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage('limits grow strictly');
        new DeviationStatistics([0.0], null, [0.01, 0.01]);
    }

    /** A plane at large coordinates comes out as it was made; along the normal a point lies nearer than vertically by the cosine. */
    public function testAPlaneThroughPoints(): void
    {
        [$x, $y, $z] = [[], [], []];
        for ($i = 0; $i < 40; ++$i) {
            $x[] = 493000.0 + 7.3 * ($i % 8);
            $y[] = 6028000.0 + 5.1 * intdiv($i, 8);
            $z[] = 230.0 + 0.03 * ($x[$i] - 493000.0) - 0.015 * ($y[$i] - 6028000.0);
        }
        $plane = FittedPlane::through($x, $y, $z);
        $length = sqrt(1.0 + 0.03 ** 2 + 0.015 ** 2);
        foreach ([-0.03 / $length, 0.015 / $length, 1.0 / $length] as $c => $value) {
            self::assertEqualsWithDelta($value, $plane->normal[$c], 1e-10);
        }
        self::assertEqualsWithDelta(0.0, $plane->sd, 1e-9);
        $above = [[$x[9]], [$y[9]], [$z[9] + 0.02]];
        self::assertEqualsWithDelta(0.02, $plane->deviations(...[...$above, Along::Vertical])[0], 1e-9);
        self::assertEqualsWithDelta(0.02 / $length, $plane->deviations(...[...$above, Along::Normal])[0], 1e-9);
        // Three points leave nothing over; a wall has no vertical deviation.
        self::assertNull(FittedPlane::through([0.0, 1.0, 0.0], [0.0, 0.0, 1.0], [0.0, 0.0, 0.0])->sd);
        $wall = FittedPlane::through([0.0, 1.0, 0.0, 1.0], [0.0, 1.0, 0.0, 1.0], [0.0, 0.0, 1.0, 1.0]);
        self::assertEqualsWithDelta(sqrt(0.5), abs($wall->deviations([1.0], [0.0], [0.5], Along::Normal)[0]), 1e-12);
        $this->expectExceptionMessage('the plane is upright');
        $wall->deviations([1.0], [0.0], [0.5], Along::Vertical);
    }

    /** For points in a plane x = const the least-squares slope of vertical distances would differ: this one is at right angles. */
    public function testThePlaneIsTheOneOfRightAngles(): void
    {
        // The corners of a rectangle of 4 by 2 about a line of slope 1: the line of closest fit is the long axis (Pearson 1901).
        [$c, $s] = [cos(\M_PI / 4), sin(\M_PI / 4)];
        $x = $y = $z = [];
        foreach ([[-2.0, -1.0], [2.0, -1.0], [2.0, 1.0], [-2.0, 1.0]] as [$u, $v]) {
            foreach ([-9.0, 9.0] as $n) {
                [$x[], $y[], $z[]] = [$c * $u - $s * $v, $n, $s * $u + $c * $v];
            }
        }
        $plane = FittedPlane::through($x, $y, $z);
        self::assertEqualsWithDelta(-$s, $plane->normal[0], 1e-12);
        self::assertEqualsWithDelta($c, $plane->normal[2], 1e-12);
        self::assertEqualsWithDelta(sqrt(8.0 / 5.0), $plane->sd, 1e-12);
    }

    public function testPointsOnALineGiveNoPlane(): void
    {
        $this->expectExceptionMessage('lie on one line');
        FittedPlane::through([1.0, 2.0, 3.0, 4.0], [1.0, 2.0, 3.0, 4.0], [5.0, 5.5, 6.0, 6.5]);
    }

    public function testAnElevationIsLevel(): void
    {
        self::assertSame([1.5, -0.5], (new ElevationReference(10.0))->deviations([0.0, 1.0], [0.0, 1.0], [11.5, 9.5], Along::Normal));
    }

    /** The same points in five formats; LAS by the tables of the ASPRS specification, byte by byte. */
    public function testPointsAreReadFromWhatTheyComeIn(): void
    {
        $places = [[493000.25, 6028000.5, 231.125], [493001.5, 6027999.75, -2.5]];
        $las = 'LASF'.str_repeat("\0", 20).\chr(1).\chr(2).str_repeat("\0", 68).pack('vVV', 227, 227, 0).\chr(0).pack('v', 20).pack('V', 2)
            .str_repeat("\0", 20).pack('e6', 0.001, 0.001, 0.001, 493000.0, 6028000.0, 0.0).str_repeat("\0", 48);
        self::assertSame(227, \strlen($las));
        $ply = "element vertex 2\nproperty uchar red\nproperty double x\nproperty double y\nproperty double z\nend_header\n";
        $little = $big = '';
        foreach ($places as [$e, $n, $h]) {
            $whole = array_map(static fn (float $v): int => (int) round(1000.0 * $v), [$e - 493000.0, $n - 6028000.0, $h]);
            $las .= pack('V3', ...$whole).str_repeat("\0", 8);
            $little .= \chr(200).pack('e3', $e, $n, $h);
            $big .= \chr(200).pack('E3', $e, $n, $h);
        }
        $files = [
            'las' => $las, 'xyz' => "# remark\n493000.25 6028000.5 231.125 17\n493001.5\t6027999.75 -2.5 19\n",
            'csv' => "id,e,n,h\nA,493000.25,6028000.5,231.125\nB,493001.5,6027999.75,-2.5\n",
            'little' => "ply\nformat binary_little_endian 1.0\n$ply$little", 'big' => "ply\nformat binary_big_endian 1.0\n$ply$big",
            'ascii' => "ply\nformat ascii 1.0\n{$ply}9 493000.25 6028000.5 231.125\n9 493001.5 6027999.75 -2.5\n",
        ];
        $path = (string) tempnam(sys_get_temp_dir(), 'pts');
        try {
            foreach ($files as $kind => $bytes) {
                file_put_contents($path, $bytes);
                $read = PointFile::read($path, $kind);
                foreach ($places as $i => $place) {
                    self::assertEqualsWithDelta($place, [$read->x[$i], $read->y[$i], $read->z[$i]], 1e-9, $kind);
                }
                self::assertSame('csv' === $kind ? ['A', 'B'] : null, $read->names);
                if ('csv' !== $kind && 'xyz' !== $kind) {
                    file_put_contents($path, substr($bytes, 0, -4));
                    $said = '';
                    try {
                        PointFile::read($path, $kind);
                    } catch (UnusableInput $e) {
                        $said = $e->getMessage();
                    }
                    self::assertSame('ascii' === $kind ? '' : 'cut off', preg_match('/cut off/', $said, $m) ? $m[0] : '', "$kind: $said");
                }
            }
        } finally {
            unlink($path);
        }
    }

    /** Count and extent as an unrelated library has them; three thousand points of format 3. Cut off, it is refused. */
    public function testAPackedCloudIsUnpacked(): void
    {
        $path = Fixture::path('las/packed.laz');
        $read = PointFile::read($path, 'packed.laz');
        self::assertCount(3000, $read->x);
        self::assertEqualsWithDelta(
            [512300.02, 4203700.006, 175.002, 512359.994, 4203759.997, 184.984],
            [min($read->x), min($read->y), min($read->z), max($read->x), max($read->y), max($read->z)], 1e-6,
        );
        $cut = (string) tempnam(sys_get_temp_dir(), 'laz');
        file_put_contents($cut, substr((string) file_get_contents($path), 0, 9000));
        $this->expectExceptionMessage('cut.laz: cannot be unpacked: it is cut off, or no LAZ file');
        try {
            PointFile::read($cut, 'cut.laz');
        } finally {
            unlink($cut);
        }
    }
}
