<?php

declare(strict_types=1);

namespace Mensura\Tests\Surface;

use Mensura\Fault\UnusableInput;
use Mensura\Surface\Contours;
use Mensura\Surface\Overlay;
use Mensura\Surface\SurfaceBuilder;
use Mensura\Surface\SurfaceLine;
use Mensura\Surface\Tin;
use Mensura\Surface\Volume;
use Mensura\Surface\VolumeSlices;
use PHPUnit\Framework\TestCase;

/** What lies between two surfaces: as a surface of its own and in slices, against closed forms of solid geometry. */
final class OverlayTest extends TestCase
{
    private const SIDE = 12.0;
    private const HEIGHT = 5.0;

    /** The frustum of a pyramid: a slice between z1 and z2 holds a²/(3h²) ((h - z1)³ - (h - z2)³). */
    public function testSlicesOfAPyramid(): void
    {
        $slices = VolumeSlices::byElevation(Overlay::withElevation(self::pyramid(self::HEIGHT), 0.0), 0.7);
        self::assertCount(8, $slices);
        foreach ($slices as $s) {
            self::assertEqualsWithDelta(self::frustum($s['from'], $s['to']), $s['cut'], 1e-12 * 240.0, 'from '.$s['from']);
            self::assertSame(0.0, $s['fill']);
        }
        self::assertEqualsWithDelta(240.0, array_sum(array_column($slices, 'cut')), 1e-9);
        self::assertEquals(
            $slices, VolumeSlices::byDepth(Overlay::withElevation(self::pyramid(self::HEIGHT), 0.0), 0.7),
            'Over a level reference depth is elevation.',
        );
    }

    /** A hollow is a heap turned over: by depth the same figures, as fill. By elevation the slices run downwards. */
    public function testSlicesOfAHollow(): void
    {
        $hollow = Overlay::withElevation(self::pyramid(-self::HEIGHT), 0.0);
        $slices = VolumeSlices::byDepth($hollow, 1.0);
        foreach ($slices as $s) {
            self::assertEqualsWithDelta(self::frustum($s['from'], $s['to']), $s['fill'], 1e-10);
            self::assertSame(0.0, $s['cut']);
        }
        $levels = VolumeSlices::byElevation($hollow, 1.0);
        self::assertSame([-5.0, -4.0], [$levels[0]['from'], $levels[0]['to']]);
        self::assertEqualsWithDelta($slices[4]['fill'], $levels[0]['fill'], 1e-10);
    }

    /** Two roofs crosswise: the overlay's figures are those of the volume, by slices and over the isopach too. */
    public function testTheSameVolumeByAllWays(): void
    {
        [$one, $other] = [self::random(1, 300), self::random(2, 240)];
        $volume = Volume::againstSurface($one, $other);
        $overlay = Overlay::withSurface($one, $other);
        $isopach = $overlay->isopach();
        $over = Volume::againstElevation($isopach, 0.0);
        $depths = VolumeSlices::byDepth($overlay, 0.37);
        $levels = VolumeSlices::byElevation($overlay, 0.37);
        self::assertEqualsWithDelta($volume, Volume::ofOverlay($overlay), 1e-9 * $volume['planArea']);
        self::assertGreaterThan(100.0, min($volume['cut'], $volume['fill']));
        foreach (['cut', 'fill'] as $part) {
            self::assertEqualsWithDelta($volume[$part], $over[$part], 1e-9 * $volume[$part]);
            self::assertEqualsWithDelta($volume[$part], array_sum(array_column($depths, $part)), 1e-9 * $volume[$part]);
            self::assertEqualsWithDelta($volume[$part], array_sum(array_column($levels, $part)), 1e-9 * $volume[$part]);
        }
        self::assertEqualsWithDelta($volume['planArea'], $isopach->statistics()['planArea'], 1e-7 * $volume['planArea']);
        $turned = VolumeSlices::byDepth(Overlay::withSurface($other, $one), 0.37);
        foreach ($depths as $k => $slice) {
            self::assertEqualsWithDelta($slice['cut'], $turned[$k]['fill'], 1e-8, 'Exchanged, cut is fill, slice by slice.');
        }
    }

    /** Where two planes meet, the zero line of the isopach is one line, and it lies where they meet. */
    public function testTheZeroLineRunsThrough(): void
    {
        $ramp = self::plane(static fn (float $x, float $y): float => 0.5 * $x + 0.25 * $y, 3);
        $level = self::plane(static fn (float $x, float $y): float => 2.0, 4);
        $isopach = Overlay::withSurface($ramp, $level)->isopach();
        $zero = array_values(array_filter(Contours::of($isopach, 10.0), static fn (array $l): bool => 0.0 === $l['h']));
        self::assertCount(1, $zero[0]['lines']);
        foreach (array_chunk($zero[0]['lines'][0], 2) as [$x, $y]) {
            self::assertEqualsWithDelta(2.0, 0.5 * $x + 0.25 * $y, 1e-9);
        }
        self::assertEqualsWithDelta(hypot(4.0, 8.0), $zero[0]['length'], 1e-9);
    }

    public function testSurfacesApart(): void
    {
        $this->expectExceptionObject(new UnusableInput('', 'the two surfaces have no common area'));
        Overlay::withSurface(self::random(1, 20), self::random(1, 20, 1000.0));
    }

    public function testTooManySlices(): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage('choose thicker ones, 500 at most are listed');
        VolumeSlices::byDepth(Overlay::withElevation(self::pyramid(self::HEIGHT), 0.0), 0.001);
    }

    private static function frustum(float $from, float $to): float
    {
        $to = min($to, self::HEIGHT);

        return self::SIDE ** 2 / (3.0 * self::HEIGHT ** 2) * ((self::HEIGHT - $from) ** 3 - (self::HEIGHT - $to) ** 3);
    }

    private static function pyramid(float $height): Tin
    {
        $a = self::SIDE;

        return (new SurfaceBuilder([0.0, $a, $a, 0.0, $a / 2.0], [0.0, 0.0, $a, $a, $a / 2.0], [0.0, 0.0, 0.0, 0.0, $height], []))->build();
    }

    /** @param \Closure(float, float): float $height */
    private static function plane(\Closure $height, int $cells): Tin
    {
        $x = $y = $z = [];
        for ($i = 0; $i <= $cells; ++$i) {
            for ($j = 0; $j <= $cells; ++$j) {
                $x[] = 8.0 * $i / $cells;
                $y[] = 8.0 * $j / $cells;
                $z[] = $height(8.0 * $i / $cells, 8.0 * $j / $cells);
            }
        }

        return (new SurfaceBuilder($x, $y, $z, []))->build();
    }

    private static function random(int $seed, int $count, float $east = 0.0): Tin
    {
        mt_srand($seed);
        $x = $y = $z = [];
        for ($i = 0; $i < $count; ++$i) {
            $x[] = $east + mt_rand(0, 100000) / 1000.0;
            $y[] = mt_rand(0, 100000) / 1000.0;
            $z[] = mt_rand(0, 4000) / 1000.0;
        }
        $inside = [[10.0, 10.0, null], [90.0, 12.0, null], [80.0, 88.0, null], [15.0, 70.0, null]];
        $boundary = new SurfaceLine(SurfaceLine::BOUNDARY, 'limit', array_map(
            static fn (array $v): array => [$v[0] + $east, $v[1], null], $inside,
        ));

        return (new SurfaceBuilder($x, $y, $z, [], [$boundary]))->build();
    }
}
