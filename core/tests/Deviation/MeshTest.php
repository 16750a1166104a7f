<?php

declare(strict_types=1);

namespace Mensura\Tests\Deviation;

use Mensura\Deviation\Along;
use Mensura\Deviation\MeshReference;
use Mensura\Exchange\Dxf\DxfGeometry;
use Mensura\Exchange\Faces\FaceFile;
use Mensura\Fault\UnusableInput;
use Mensura\Mesh\Mesh;
use Mensura\Tests\Fixture;
use PHPUnit\Framework\TestCase;

/** Meshes: joined, turned upward, and distances from them. */
final class MeshTest extends TestCase
{
    /** Brute force and solid angles with numpy (fixtures/mesh/make.py); four faces in ten are given the wrong way round. */
    public function testDistancesFromAClosedMeshAndTheirSigns(): void
    {
        $star = Fixture::json('mesh/star.json');
        [$x, $y, $z] = self::columns($star['vertices']);
        $mesh = Mesh::of($x, $y, $z, array_merge(...$star['faces']));
        [$px, $py, $pz] = self::columns($star['points']);
        $found = (new MeshReference($mesh))->deviations($px, $py, $pz, Along::Normal);
        // A closed mesh has no upward side as a whole: all signs are right, or all are turned.
        $sense = $found[0] * $star['distances'][0] > 0.0 ? 1.0 : -1.0;
        foreach ($star['distances'] as $i => $d) {
            self::assertEqualsWithDelta($d, $sense * $found[$i], 1e-9, "point $i");
        }
    }

    /** Given one by one, corners at one place within a micrometre are joined; a border is an edge of one face only. */
    public function testFacesGivenOneByOneBecomeNeighbours(): void
    {
        [$x, $y, $z] = [[0.0, 1.0, 1.0, 0.0, 1.0 + 4e-7, 0.0], [0.0, 0.0, 1.0, 0.0, 1.0, 1.0], [0.0, 0.0, 0.0, 4e-7, 0.0, 0.0]];
        $mesh = Mesh::of($x, $y, $z, [0, 2, 1, 3, 4, 5]);
        self::assertSame(4, \count(array_filter($mesh->opposite, static fn (int $o): bool => Mesh::BORDER === $o)));
        self::assertSame([0, 1, 2, 0, 2, 5], $mesh->triangles);
        self::assertSame(5, $mesh->edges);
        // Two micrometres apart they are two, and nothing is joined.
        $apart = Mesh::of(
            [0.0, 1.0, 1.0, 0.0, 1.0, 0.0], [0.0, 0.0, 1.0, 0.0, 1.0, 1.0], [0.0, 0.0, 0.0, 2e-6, 2e-6, 0.0], [0, 1, 2, 3, 4, 5],
        );
        self::assertNotContains(0, array_filter($apart->opposite, static fn (int $o): bool => $o >= 0));
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage('no face with an area');
        Mesh::of([0.0, 1.0, 2.0], [0.0, 1.0, 2.0], [0.0, 0.0, 0.0], [0, 1, 2]);
    }

    /** A wall between two floors follows them: seen from the low side its normal points outward, whatever sense it was given in. */
    public function testAWallFollowsItsNeighbours(): void
    {
        $x = [0.0, 5.0, 5.0, 0.0, 5.0, 5.0, 10.0, 10.0];
        $y = [0.0, 0.0, 5.0, 5.0, 0.0, 5.0, 0.0, 5.0];
        $z = [0.0, 0.0, 0.0, 0.0, 2.0, 2.0, 2.0, 2.0];
        foreach ([[1, 2, 5, 1, 5, 4], [1, 5, 2, 1, 4, 5]] as $wall) {
            $reference = new MeshReference(Mesh::of($x, $y, $z, [0, 1, 2, 0, 2, 3, ...$wall, 4, 6, 7, 4, 7, 5]));
            [$low, $high] = $reference->deviations([4.9, 5.1], [2.5, 2.5], [1.0, 1.0], Along::Normal);
            self::assertEqualsWithDelta(0.1, $low, 1e-12);
            self::assertEqualsWithDelta(-0.1, $high, 1e-12);
            self::assertEqualsWithDelta(1.0, $reference->deviations([4.9], [2.5], [1.0], Along::Vertical)[0], 1e-12);
        }
    }

    /** The contract: outside where the offset reaches a millimetre out over the border; vertically a micrometre beside is still over. */
    public function testBesideTheMeshIsOutside(): void
    {
        $square = new MeshReference(Mesh::of([0.0, 4.0, 4.0, 0.0], [0.0, 0.0, 4.0, 4.0], [1.0, 1.0, 1.0, 1.0], [0, 1, 2, 0, 2, 3]));
        $x = [4.0009, 4.0011, 2.0, 4.0005, 4.0011, -0.0005];
        $y = [2.0, 2.0, 2.0, 4.0005, 4.0005, 4.0011];
        $z = [1.5, 1.5, 0.25, 1.5, 1.5, 1.5];
        $found = $square->deviations($x, $y, $z, Along::Normal);
        self::assertSame([false, true, false, false, true, true], array_map(is_nan(...), $found));
        self::assertEqualsWithDelta(hypot(0.0009, 0.5), $found[0], 1e-12);
        self::assertSame(-0.75, $found[2]);
        $found = $square->deviations([4.0000009, 4.0000011, -9e-7, 2.0], [2.0, 2.0, -9e-7, 2.0], [1.5, 1.5, 1.5, 0.25], Along::Vertical);
        self::assertSame([false, true, true, false], array_map(is_nan(...), $found), 'over the corner it is 1.27 micrometres away');
    }

    /** Of several floors the nearest in height counts, of two equally near the higher (the contract). */
    public function testDecksOverEachOther(): void
    {
        $x = [0.0, 9.0, 0.0, 0.0, 9.0, 0.0];
        $y = [0.0, 0.0, 9.0, 0.0, 0.0, 9.0];
        $z = [0.0, 0.0, 0.0, 4.0, 4.0, 4.0];
        $decks = new MeshReference(Mesh::of($x, $y, $z, [0, 1, 2, 3, 5, 4]));
        self::assertSame(
            [1.0, -1.5, -2.0, 3.0], $decks->deviations([1.0, 1.0, 1.0, 1.0], [1.0, 1.0, 1.0, 1.0], [1.0, 2.5, 2.0, 7.0], Along::Vertical),
        );
    }

    /** Faces as ezdxf reads the same drawing back: blocks in blocks, turned, mirrored, scaled, extruded, in rows and columns. */
    public function testFacesOfADrawingAreWhereAnotherReaderHasThem(): void
    {
        $dxf = DxfGeometry::read(fopen(Fixture::path('mesh/faces.dxf'), 'r') ?: self::fail('no fixture'));
        $faces = [];
        foreach ($dxf->faceOf as $t => $face) {
            $faces[$face][] = $t;
        }
        self::assertCount(\count($dxf->layerOf), $faces);
        $wanted = Fixture::json('mesh/faces.json');
        self::assertCount(\count($wanted), $faces);
        $prints = [];
        foreach ($faces as $triangles) {
            $corners = array_values(array_unique(array_merge(...array_map(
                static fn (int $t): array => \array_slice($dxf->triangles, 3 * $t, 3), $triangles,
            ))));
            $sum = static fn (array $all): float => array_sum(array_map(static fn (int $c): float => $all[$c], $corners));
            $mean = static fn (array $all): float => $sum($all) / \count($corners);
            $area = array_sum(array_map(static fn (int $t): float => 0.5 * Mesh::area(
                $dxf->x, $dxf->y, $dxf->z, ...\array_slice($dxf->triangles, 3 * $t, 3),
            ), $triangles));
            $prints[] = [$mean($dxf->x), $mean($dxf->y), $mean($dxf->z), $area];
        }
        foreach ($wanted as $w) {
            $near = array_filter($prints, static fn (array $p): bool => max(array_map(
                static fn (float $a, float $b): float => abs($a - $b), $p, $w,
            )) < 2e-5);
            self::assertNotSame([], $near, json_encode($w).' is missing');
            unset($prints[array_key_first($near)]);
        }
        self::assertSame([], $prints);
        $layers = array_count_values($dxf->layerOf);
        self::assertSame([1, 1, 15, 6, 6, 36], [
            $layers['TRI'], $layers['QUAD'], $layers['GRID'], $layers['MESH'], $layers['INNER'], $layers['ARRAY'],
        ]);
    }

    /** Lines and points as ezdxf has them (fixtures/mesh/lines.py): lengths to the chord's hundredth, ends, layers, blocks placed. */
    public function testLinesOfADrawingAreWhereAnotherReaderHasThem(): void
    {
        $path = Fixture::path('mesh/lines.dxf');
        $file = FaceFile::drawing($path, 'lines.dxf') ?? self::fail('not recognised');
        $wanted = Fixture::json('mesh/lines.json');
        self::assertCount(\count($wanted['lines']), $file->lines);
        $place = static fn (int $v): array => [$file->x[$v], $file->y[$v], $file->z[$v]];
        foreach ($wanted['lines'] as $k => $line) {
            $length = 0.0;
            $corners = $file->lines[$k];
            foreach ($corners as $i => $v) {
                if ($i > 0) {
                    [$a, $b] = [$place($corners[$i - 1]), $place($v)];
                    $length += sqrt(($b[0] - $a[0]) ** 2 + ($b[1] - $a[1]) ** 2 + ($b[2] - $a[2]) ** 2);
                }
            }
            // What is drawn on layer 0 of a block lies on the layer the block is placed on (DXF reference, INSERT).
            self::assertSame('0' === $line[0] ? 'TREES' : $line[0], $file->lineLayers[$k]);
            self::assertEqualsWithDelta($line[1], $length, 0.003 * $line[1], $line[0]);
            self::assertLessThanOrEqual($line[1] + 1e-9, $length, 'chords are no longer than the arc');
            $ends = [...$place($corners[0]), ...$place($corners[\count($corners) - 1])];
            // A circle begins where each reader likes.
            if (abs($line[2] - $line[5]) + abs($line[3] - $line[6]) > 1e-9) {
                self::assertEqualsWithDelta(\array_slice($line, 2), $ends, 1e-9, $line[0]);
            }
        }
        $points = [];
        foreach ($file->points as $k => $v) {
            $points[] = [$file->pointLayers[$k], ...$place($v)];
        }
        self::assertCount(\count($wanted['points']) + \count($wanted['inserts']), $points);
        foreach ([...$wanted['points'], ...$wanted['inserts']] as $w) {
            self::assertNotSame([], array_filter($points, static fn (array $p): bool => $p[0] === $w[0]
                && max(abs($p[1] - $w[1]), abs($p[2] - $w[2]), abs($p[3] - $w[3])) < 1e-9), json_encode($w).' is missing');
        }
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage('holds no faces');
        FaceFile::read($path, 'lines.dxf');
    }

    /** Cells of a GeoTIFF lie where GDAL has their centres (gdal_translate -of XYZ, GDAL 3), two triangles to a square. */
    public function testAGridOfHeights(): void
    {
        $grid = FaceFile::read(Fixture::path('look/dem-lzw.tif'), 'dem.tif') ?? self::fail('not recognised');
        $there = [];
        foreach ($grid->x as $i => $x) {
            $there[\sprintf('%.3F %.3F', $x, $grid->y[$i])] = $grid->z[$i];
        }
        $count = 0;
        foreach (file(Fixture::path('mesh/dem.xyz'), \FILE_IGNORE_NEW_LINES) ?: [] as $line) {
            [$x, $y, $z] = array_map(floatval(...), explode(' ', $line));
            if ($z > -9000.0) {
                self::assertEqualsWithDelta($z, $there[\sprintf('%.3F %.3F', $x, $y)] ?? \NAN, 1e-4);
                ++$count;
            }
        }
        self::assertCount($count, $there);
        $area = 0.0;
        for ($h = 0; $h < \count($grid->triangles); $h += 3) {
            [$a, $b, $c] = \array_slice($grid->triangles, $h, 3);
            [$ux, $uy] = [$grid->x[$b] - $grid->x[$a], $grid->y[$b] - $grid->y[$a]];
            $twice = $ux * ($grid->y[$c] - $grid->y[$a]) - $uy * ($grid->x[$c] - $grid->x[$a]);
            self::assertGreaterThan(0.0, $twice, 'anticlockwise');
            $area += 0.5 * $twice;
        }
        $cell = abs($grid->x[1] - $grid->x[0]);
        self::assertEqualsWithDelta(\count($grid->triangles) / 6 * $cell * $cell, $area, 1e-6);
    }

    /** Where faces are asked for, lines beside them are not part of the shape. */
    public function testFacesAlone(): void
    {
        $face = "0\n3DFACE\n8\nTOP\n10\n0\n20\n0\n30\n1\n11\n9\n21\n0\n31\n1\n12\n0\n22\n9\n32\n1\n13\n0\n23\n9\n33\n1\n";
        $line = "0\nLINE\n8\nAXIS\n10\n50\n20\n50\n30\n99\n11\n60\n21\n50\n31\n99\n";
        $path = tempnam(sys_get_temp_dir(), 'dxf') ?: self::fail('no room');
        file_put_contents($path, "0\nSECTION\n2\nENTITIES\n$line$face$line".'0'."\nENDSEC\n0\nEOF\n");
        $alone = FaceFile::read($path, 'both.dxf') ?? self::fail('not recognised');
        self::assertSame([1.0, 1.0, [], ['TOP']], [max($alone->z), min($alone->z), $alone->lines, $alone->layerOf]);
        self::assertSame(9.0 * 9.0, Mesh::area($alone->x, $alone->y, $alone->z, ...\array_slice($alone->triangles, 0, 3)));
        self::assertCount(2, FaceFile::drawing($path, 'both.dxf')->lines ?? []);
        unlink($path);
    }

    /** Blocks that hold one another, or multiply beyond all measure, end in a refusal. */
    public function testBlocksThatMultiply(): void
    {
        $text = "0\nSECTION\n2\nBLOCKS\n";
        for ($k = 0; $k < 9; ++$k) {
            $inner = str_repeat("0\nINSERT\n8\n0\n2\nB".($k + 1)."\n70\n20\n71\n20\n10\n0\n20\n0\n30\n0\n", 3);
            $text .= "0\nBLOCK\n8\n0\n2\nB$k\n10\n0\n20\n0\n30\n0\n{$inner}0\nENDBLK\n8\n0\n";
        }
        $text .= "0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nINSERT\n8\n0\n2\nB0\n10\n0\n20\n0\n30\n0\n0\nENDSEC\n0\nEOF\n";
        $stream = fopen('data://text/plain;base64,'.base64_encode($text), 'r') ?: self::fail('no stream');
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage('within one another');
        DxfGeometry::read($stream);
    }

    /**
     * @param list<list<float>> $rows
     *
     * @return array{list<float>, list<float>, list<float>}
     */
    private static function columns(array $rows): array
    {
        $column = static fn (int $c): array => array_map(floatval(...), array_column($rows, $c));

        return [$column(0), $column(1), $column(2)];
    }
}
