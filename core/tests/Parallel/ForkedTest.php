<?php

declare(strict_types=1);

namespace Mensura\Tests\Parallel;

use Mensura\Parallel\Forked;
use Mensura\Surface\Delaunay;
use Mensura\Surface\Pieces;
use Mensura\Surface\Tin;
use Mensura\Surface\Volume;
use PHPUnit\Framework\TestCase;

/** Parts side by side give what they give one after the other. */
final class ForkedTest extends TestCase
{
    public function testPartsKeepTheirOrderAndEveryBit(): void
    {
        $part = static fn (int $k): array => [1.0 / ($k + 3), sqrt($k), -0.0];
        self::assertSame(array_map($part, range(0, 4)), Forked::map(5, $part));
        self::assertSame([[1.0 / 3.0, 0.0, -0.0]], Forked::map(1, $part));
    }

    public function testAPartThatFailsFailsHere(): void
    {
        $this->expectExceptionMessage('part 2');
        Forked::map(3, static fn (int $k): array => 2 === $k ? throw new \DomainException('part 2') : [1.0]);
    }

    /** Plane over plane, common practice: a slope of 1 % over a square of 400 m holds its mean height times the area. */
    public function testTwoLargeSurfacesAreComparedInParts(): void
    {
        [$upper, $lower] = [self::slope(0.01, 0.0), self::slope(0.0, 0.37)];
        self::assertGreaterThan(100_000, $upper->triangleCount());
        $volume = Volume::againstSurface($upper, $lower);
        self::assertEqualsWithDelta(160_000.0, $volume['planArea'], 1e-4);
        self::assertEqualsWithDelta(320_000.0, $volume['net'], 1e-3);
        self::assertSame(0.0, $volume['fill']);
        $area = 0.0;
        (new Pieces($upper, $lower))->each(static function (array $x, array $y, array $u, array $l, int $n) use (&$area): void {
            for ($k = 1; $k < $n - 1; ++$k) {
                $area += 0.5 * (($x[$k] - $x[0]) * ($y[$k + 1] - $y[0]) - ($x[$k + 1] - $x[0]) * ($y[$k] - $y[0]));
            }
        });
        self::assertEqualsWithDelta($volume['planArea'], $area, 1e-6);
    }

    private static function slope(float $rise, float $shift): Tin
    {
        $x = $y = $z = [];
        for ($row = 0; $row <= 230; ++$row) {
            for ($column = 0; $column <= 230; ++$column) {
                // Off the lines of the other grid inside, on the same square outside.
                $x[] = $column % 230 ? ($column + $shift) * 400.0 / 230.5 : $column * 400.0 / 230.0;
                $y[] = $row % 230 ? ($row + $shift) * 400.0 / 230.5 : $row * 400.0 / 230.0;
                $z[] = $rise * $x[\count($x) - 1];
            }
        }

        return Tin::ofTriangles($x, $y, $z, Delaunay::triangulate($x, $y)['triangles']);
    }
}
