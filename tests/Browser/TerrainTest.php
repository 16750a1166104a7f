<?php

declare(strict_types=1);

namespace App\Tests\Browser;

use Demo\Heap;
use Demo\Slab;
use Facebook\WebDriver\Interactions\WebDriverActions;

/** Surfaces from selections, a point taken out on the sketch, volumes and sections, as someone new to them would try. */
final class TerrainTest extends OfficeTestCase
{
    /** The heap of June again without the peg that stands proud: chosen by name, the peg clicked out, made; and its volume on its edge. */
    public function testAHeapWithoutItsPeg(): void
    {
        $o = self::$office;
        $o->go('/p/1/terrain');
        $o->click('[data-test=new-surface]');
        $o->type('#surface-name', 'Heap without peg');
        $o->choose('[aria-label="Codes"]', 'HEAP');
        $o->type('[aria-label="Names like"]', 'HB-*');
        $o->see('204 points in ');
        [$e, $n] = $this->peg();
        $this->onTheSketch($e, $n);
        $o->see('203 points in ');
        self::assertSame(Heap::PEG, $o->find('#surface-exclude')->getAttribute('value'));
        $o->type('#surface-edge', '8');
        $o->click('[data-test=save-surface]');
        $o->see('Heap without peg: 2');
        $o->see('203 points in ');

        $o->click('[data-test=terrain-tab-volumes]');
        $o->click('[data-test=new-volume]');
        $o->type('[data-test=volume-name]', 'without the peg');
        $o->press('its own edge', '.el-radio-button');
        $o->click('[data-test=compute-volume]');
        $o->see('against the surface through its own edge');
        $o->see('without the peg: ');
        $o->click('[data-test=volume-tab-haul]');
        $o->see('gravel, brought in');
        $o->click('[data-test=edit-materials]');
        $o->click('[data-test=keep-materials]');
        $o->see('The materials are kept.');
        self::assertSame([], $o->complaints());
    }

    /** What is taken out of a surface that is there is out at once, and comes back as it was. */
    public function testAPointInAndOutOfASurface(): void
    {
        $o = self::$office;
        $o->go('/p/1/terrain?surface=2');
        $o->see('Heap, May: ');
        $o->see('203 points in ');
        $this->onTheSketch(...$this->place('HA-100'));
        $o->see('in the surface');
        $o->click('[data-test=turn]');
        $o->see('202 points in ');
        $this->onTheSketch(...$this->place('HA-100'));
        $o->see('not in the surface');
        $o->click('[data-test=turn]');
        $o->see('203 points in ');
        $o->go('/p/1/terrain?volume=2');
        $o->see('heap, May to June: ');
        $o->see('389.1 m³ above');
        $o->go('/p/1/terrain?section=2');
        $o->see('along the haul road: 198.70 m');
        $o->click('[data-test=section-tab-crosses]');
        $o->see('1 of 10');
        self::assertSame([], $o->complaints());
    }

    /** Just the quads that are wanted of a mesh nobody here drew: picked on the sketch, made a surface and points. */
    public function testADesignIsTakenApart(): void
    {
        $o = self::$office;
        $o->go('/p/1/terrain');
        $o->click('[data-test=terrain-tab-designs]');
        $o->see('slab-b2.dxf: 120 faces');
        foreach ([[1.0, 1.0], [3.0, 1.0], [3.0, 3.0]] as [$e, $n]) {
            $this->onTheSketch(Slab::WEST + $e, Slab::SOUTH + $n);
        }
        $o->see('3 of 120 faces picked');
        $o->see('Make 8 points');
        $this->onTheSketch(Slab::WEST + 3.0, Slab::SOUTH + 3.0);
        $o->see('2 of 120 faces picked');
        $o->type('[data-test=design-surface-name]', 'two quads');
        $o->click('[data-test=design-surface]');
        $o->see('two quads: 228', 30);
        $o->see('6 points in 4 triangles');
        $o->see('2 faces of slab-b2.dxf');
        $o->click('[data-test=terrain-tab-designs]');
        $o->click('[data-test=pick-edges]');
        $this->onTheSketch(Slab::WEST + 5.0, Slab::SOUTH + 0.05);
        $this->onTheSketch(Slab::WEST + 7.0, Slab::SOUTH + 0.05);
        $o->see('2 edges picked, 1 line');
        $o->type('[data-test=prefix]', 'EDGE-');
        $o->type('[data-test=design-code]', 'EDGE');
        $o->click('[data-test=take-points]');
        $o->see('3 points made: EDGE-1 to EDGE-3.');
        self::assertSame([], $o->complaints());
    }

    /** @return array{float, float} */
    private function peg(): array
    {
        return [Heap::EAST + 14.0, Heap::NORTH - 13.0];
    }

    /** @return array{float, float} */
    private function place(string $point): array
    {
        foreach (explode("\n", (new Heap())->survey(false)) as $line) {
            $cells = explode(',', $line);
            if ($cells[0] === $point) {
                return [(float) $cells[1], (float) $cells[2]];
            }
        }

        throw new \LogicException("There is no $point.");
    }

    /** A click where a place is drawn. */
    private function onTheSketch(float $e, float $n): void
    {
        $o = self::$office;
        $o->settle();
        $map = $o->find('.map');
        $o->await(static fn (): ?bool => '' !== (string) $map->getAttribute('data-view') ? true : null, 'the sketch');
        [$west, $south, $east, $north] = array_map(floatval(...), explode(' ', (string) $map->getAttribute('data-view')));
        $size = $map->getSize();
        $x = (int) round(($e - $west) / ($east - $west) * $size->getWidth() - 0.5 * $size->getWidth());
        $y = (int) round(($north - $n) / ($north - $south) * $size->getHeight() - 0.5 * $size->getHeight());
        (new WebDriverActions($o->driver))->moveToElement($map, $x, $y)->click()->perform();
        $o->settle();
    }
}
