<?php

declare(strict_types=1);

namespace App\Tests\Browser;

use Demo\Generator;
use Demo\TruthModel;

/** A traverse from a LandXML file, its set-ups one by one, and a network that is only planned: in the interface, as its user. */
final class RoadTest extends OfficeTestCase
{
    public function testALandXmlBookBecomesATraverse(): void
    {
        $o = self::$office;
        $this->newProject('Access road');
        file_put_contents($o->folder.'/control.csv', (new Generator(new TruthModel()))->files()['control-kestrel-tarn.csv']);
        file_put_contents($o->folder.'/road.xml', (new Generator(new TruthModel()))->traverse());
        foreach (['control.csv' => 'control list', 'road.xml' => 'total-station pointings'] as $name => $kind) {
            $o->bring($o->folder.'/'.$name);
            $o->see($name);
            $o->await(static fn (): ?bool => $kind === $o->driver->executeScript(
                "return document.querySelector('.preview .kind')?.innerText",
            ) ? true : null, "$name as $kind");
            $o->click('[data-test=accept]');
            $o->see("Accepted $name");
        }
        $o->keys('4');
        $o->press('Setups');
        $o->press('Traverse', 'label');
        $o->see('angles close to');
        $o->see('1 : ');
        self::assertStringContainsString('✓ position closes to', $o->text());
        // A limit that nobody keeps: the page says so.
        $o->type('.allowed .el-form-item:nth-child(2) input', '9000000');
        $o->press('Allow so');
        $o->see('▲ position closes to');

        $o->press('Book, reduced', 'label');
        $o->see('reference refractivity');
        self::assertStringContainsString('ellipsoid', $o->text());
        $o->press('Placed', 'label');
        $o->see('leans on');
        $o->press('As read', 'label');
        $o->click('[aria-label=pointings] .row');
        $o->see('the target stood beside the mark');
        $o->type('.eccentric .el-form-item:nth-child(1) input', '0.250');
        $o->find('[aria-label=Reason]')->sendKeys('prism beside the bolt');
        $o->click('[data-test=centre]');
        $o->see('Reduced to the mark');
        $o->see('✎');
        $o->keys('l');
        $o->see('prism beside the bolt');
    }

    public function testANetworkIsPlannedOnTheSketchKeptAndUndone(): void
    {
        $o = self::$office;
        $o->go('/p/1/network');
        $o->see('Adjustment 3');
        $o->press('Plan');
        $o->see('click the sketch where a mark shall be');
        $o->find('.map[data-drawn]');
        $o->settle();
        $map = $o->find('.map');
        $size = $map->getSize();
        $click = static function (float $x, float $y) use ($o, $map, $size): void {
            $o->driver->action()
                ->moveToElement($map, (int) (($x - 0.5) * $size->getWidth()), (int) (($y - 0.5) * $size->getHeight()))->click()->perform();
            usleep(350000); // A hand's pace: two clicks at once would be a double click.
        };
        $click(0.45, 0.90);
        $o->see('Marks 1');
        $click(0.75, 0.88);
        $o->see('Marks 2');
        $o->press('Lay sights', 'label');
        $o->see('click where it starts');
        $click(0.45, 0.90);
        $o->see('from P1: click its targets');
        $click(0.75, 0.88);
        $o->see('Sights 1');
        // Nothing ties the two to the network yet.
        $o->find('.el-alert--warning');
        $o->choose('[aria-label="Kind of sight"]', 'GNSS vector');
        // P1 is where the sight starts still; the held mark KT01 stands in the lower left of the sketch as it is fitted.
        $click(0.1443, 0.7469);
        $o->see('Sights 2');
        $o->see('P2: plan position not determined');
        $o->choose('[aria-label="Kind of sight"]', 'total station');
        $click(0.1443, 0.7469);
        $o->see('Sights 3');
        $o->see('the ellipse wanted');
        $o->press('Sights', 'label');
        $o->see('total station');
        $o->click('[data-test=keep-plan]');
        $o->see('The plan is kept.');
        $o->go('/p/1/network');
        $o->press('Plan');
        $o->see('Sights 3');
        $o->press('Ledger');
        $o->see('Planned a network: 2 marks, 3 sights');
        $o->press('Undo');
        $o->see('Sights 0');
    }
}
