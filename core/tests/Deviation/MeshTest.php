<?php

declare(strict_types=1);

namespace Mensura\Tests\Deviation;

use Mensura\Deviation\Along;
use Mensura\Deviation\MeshReference;
use Mensura\Exchange\Dxf\DxfFaces;
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
        $dxf = DxfFaces::read(fopen(Fixture::path('mesh/faces.dxf'), 'r') ?: self::fail('no fixture'));
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
