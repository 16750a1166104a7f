<?php

declare(strict_types=1);

namespace App\Tests\Browser;

/** Checks as a surveyor works through them while the concrete is wet. */
final class ChecksTest extends OfficeTestCase
{
    public function testTheSlabIsReadItsBandsChangedAndAnotherComparisonMade(): void
    {
        $office = self::$office;
        $office->go('/p/1/checks');
        $office->see('of slab B2 lies within ±6 mm; the south-east corner is');
        $office->see('3 lie more than 300.0 mm away and were left out');
        $office->click('[data-test=tab-left]');
        $office->see('SL-');
        $office->click('[data-test=tab-bands]');
        $office->type('[data-test=limits]', '-20 20');
        $office->see('All of slab B2 lies within ±20 mm');
        $office->click('[data-test=view-histogram]');
        $office->find('[aria-label="Histogram of 594 deviations"]');
        $office->click('[data-test=new-check]');
        $office->type('[data-test=check-name]', 'floor');
        $office->choose('[aria-label=Codes]', 'SLAB');
        $office->press('plane', 'label');
        $office->click('[data-test=compare]');
        $office->see('the plane through 594 points themselves', 30);
        $office->click('[data-test=tab-all]');
        $office->see('Comparisons 2');
    }

    /** Marks that took part in nothing say how good a scan is, and the scan how good the survey. */
    public function testCheckPointsAndAScan(): void
    {
        $office = self::$office;
        $office->go('/p/1/checks');
        $office->click('[data-test=page-points]');
        $office->see('8 check points are held out of every adjustment and surface.');
        $office->click('[data-test=new-points]');
        $office->type('[data-test=points-name]', 'scan, wider');
        $office->press('a cloud that came in', '.el-radio-button');
        $office->click('[data-test=points-compare]');
        $office->see('scan, wider: accurate to', 30);
        $office->see('6 of 8 check points compared with');
        $office->click('[data-test=page-deviations]');
        $office->click('[data-test=new-check]');
        $office->type('[data-test=check-name]', 'heap by scan');
        $office->press('point cloud', '.el-radio-button');
        $office->press('elevation', '.el-radio-button');
        $office->click('[data-test=compare]');
        $office->see('heap by scan', 30);
        $office->see('against the elevation 0.000 m');
        $office->go('/p/1/network');
        $office->click('[data-test=tab-control]');
        $office->see('8 check points are held out of every adjustment');
        self::assertSame([], $office->complaints());
    }
}
