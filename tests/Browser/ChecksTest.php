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
}
