<?php

declare(strict_types=1);

namespace Mensura\Tests\Section;

use Mensura\Exchange\GeoJson\LineFile;
use Mensura\Fault\UnusableInput;
use Mensura\Section\SectionLine;
use Mensura\Section\SurfaceSection;
use Mensura\Surface\SurfaceBuilder;
use Mensura\Surface\SurfaceLine;
use Mensura\Surface\Tin;
use PHPUnit\Framework\TestCase;

/** Sections of surfaces whose heights are known everywhere. */
final class SectionTest extends TestCase
{
    /** On a plane every station has the plane's height, and vertices come at every edge that is crossed. */
    public function testAPlaneIsCutStraight(): void
    {
        $tin = self::grid(static fn (float $x, float $y): float => 100.0 + 0.25 * $x - 0.5 * $y);
        $line = new SectionLine([-3.0, 4.5, 22.0], [2.5, 2.5, 8.75]);
        $pieces = (new SurfaceSection($tin))->along($line);
        self::assertCount(1, $pieces);
        self::assertEqualsWithDelta(3.0, $pieces[0][0][0], 1e-9, 'the surface begins at easting 0');
        foreach ($pieces[0] as [$station, $h]) {
            // Two segments: 7.5 m eastward, then towards the north-east.
            $beyond = max(0.0, $station - 7.5) / hypot(17.5, 6.25);
            [$x, $y] = [-3.0 + min(7.5, $station) + 17.5 * $beyond, 2.5 + 6.25 * $beyond];
            self::assertEqualsWithDelta(100.0 + 0.25 * $x - 0.5 * $y, $h, 1e-9);
        }
        self::assertContains(7.5, array_map(static fn (array $v): float => round($v[0], 9), $pieces[0]), 'a vertex where the line bends');
        $stations = array_column($pieces[0], 0);
        $sorted = $stations;
        sort($sorted);
        self::assertSame($sorted, $stations);
        self::assertGreaterThan(20, \count($stations));
    }

    /** Along the border, along a breakline and over a void; each side of the hole is a piece of its own. */
    public function testBordersEdgesAndHoles(): void
    {
        $tin = self::grid(static fn (float $x, float $y): float => $x);
        foreach ([0.0, 10.0, 5.0] as $y) {
            $pieces = (new SurfaceSection($tin))->along(new SectionLine([-1.0, 11.0], [$y, $y]));
            self::assertCount(1, $pieces, "northing $y");
            self::assertEqualsWithDelta([1.0, 0.0], $pieces[0][0], 1e-9);
            self::assertEqualsWithDelta([11.0, 10.0], $pieces[0][\count($pieces[0]) - 1], 1e-9);
        }
        self::assertSame([], (new SurfaceSection($tin))->along(new SectionLine([-1.0, 11.0], [-0.001, -0.001])));
        $void = new SurfaceLine(SurfaceLine::VOID, 'pond', [[3.2, 3.2, null], [6.8, 3.2, null], [6.8, 6.8, null], [3.2, 6.8, null]]);
        $holed = self::grid(static fn (float $x, float $y): float => $x, [$void]);
        $pieces = (new SurfaceSection($holed))->along(new SectionLine([-1.0, 11.0], [5.1, 5.1]));
        self::assertEqualsWithDelta(
            [[1.0, 4.2], [7.8, 11.0]], array_map(static fn (array $p): array => [$p[0][0], $p[\count($p) - 1][0]], $pieces), 1e-9,
        );
    }

    /** Right of the line is positive; beyond both ends no perpendicular falls on it, and of two segments the nearer one counts. */
    public function testPointsBesideALine(): void
    {
        $line = new SectionLine([0.0, 10.0, 10.0], [0.0, 0.0, 10.0]);
        self::assertSame(20.0, $line->length);
        self::assertEqualsWithDelta([4.0, 1.5], $line->foot(4.0, -1.5, 2.0), 1e-12);
        self::assertEqualsWithDelta([13.0, -2.0], $line->foot(8.0, 3.0, 5.0), 1e-12);
        self::assertNull($line->foot(-0.1, 0.0, 2.0));
        self::assertNull($line->foot(4.0, -2.1, 2.0));
        self::assertEqualsWithDelta([10.0, 0.0], $line->foot(10.0, 0.0, 0.0), 1e-12);
        self::assertNull($line->foot(12.0, -1.0, 5.0), 'in the outer corner none falls on a segment');
    }

    public function testALineIsFoundInWhateverHoldsIt(): void
    {
        $geometry = '{"type":"LineString","coordinates":[[0,0],[3,4]]}';
        $feature = "{\"type\":\"Feature\",\"geometry\":$geometry}";
        $empty = '{"type":"Feature","geometry":null}';
        foreach ([$geometry, $feature, "\xEF\xBB\xBF{\"type\":\"FeatureCollection\",\"features\":[$empty,$feature]}"] as $json) {
            self::assertSame(5.0, LineFile::read($json)->length);
        }
        foreach ([
            '[' => 'not JSON', '{"type":"Point","coordinates":[0,0]}' => 'no LineString',
            '{"type":"LineString","coordinates":[[0,0],["a",1]]}' => 'coordinates[1]',
            '{"type":"LineString","coordinates":[[1,1],[1,1]]}' => 'no length',
        ] as $json => $why) {
            try {
                LineFile::read($json);
                self::fail($json);
            } catch (UnusableInput $e) {
                self::assertStringContainsString($why, $e->getMessage());
            }
        }
    }

    /**
     * @param \Closure(float, float): float $height
     * @param list<SurfaceLine>             $lines
     */
    private static function grid(\Closure $height, array $lines = []): Tin
    {
        $x = $y = $z = $names = [];
        for ($i = 0; $i <= 10; ++$i) {
            for ($j = 0; $j <= 10; ++$j) {
                [$x[], $y[], $z[], $names[]] = [(float) $i, (float) $j, $height((float) $i, (float) $j), "$i/$j"];
            }
        }

        return (new SurfaceBuilder($x, $y, $z, $names, $lines, false))->build(null);
    }
}
