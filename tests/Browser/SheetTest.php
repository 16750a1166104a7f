<?php

declare(strict_types=1);

namespace App\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;

/** A sheet is laid out with the PDF beside it; a catalogue is written and tried as the field form. */
final class SheetTest extends OfficeTestCase
{
    public function testASheetIsLaidOutAndDrawn(): void
    {
        $office = self::$office;
        $office->go('/p/1/handover?page=sheets');
        $office->see('1 sheet of 1 view');
        $office->see('heap, plan');
        $drawn = static fn (): bool => '1' === $office->find('[data-drawn]')->getAttribute('data-drawn');
        $office->await($drawn, 'the preview, which is the PDF itself');
        $office->click('[data-test=edit-sheet]');
        $office->see('Sheet heap, plan');
        $office->press('Cancel');
        $office->click('[data-test=new-view]');
        $office->type('[data-test=view-name]', 'kerbs');
        $office->choose('[aria-label="Colour of DRAIN"]', 'left out');
        $office->click('[data-test=save-view]');
        $office->see('1 sheet of 2 views');
        $office->click('[data-test=lock-2]');
        $office->see('locked: stays as it was drawn');
        $office->click('[data-test=new-sheet]');
        $office->type('[data-test=sheet-name]', 'two windows');
        $office->click('[data-test=add-window]');
        $office->see('Window 2');
        $office->await($drawn, 'the preview of the draft');
        $office->click('[data-test=save-sheet]');
        $office->see('2 sheets of 2 views');
        $office->click('[data-test=draw-sheets]');
        $office->see('scale bars measured', 40);
        self::assertStringNotContainsString('✕', $office->find('[aria-label=Receipt]')->getText());
        self::assertSame([], $office->complaints());
    }

    public function testACatalogueIsWrittenAndTriedInTheField(): void
    {
        $office = self::$office;
        $office->go('/p/1/handover?page=catalogue');
        $office->see('Catalogue site inventory: 5 types, version 1');
        $office->click('[data-test=add-type]');
        $office->see('TYPE_6');
        $office->type('[data-test=type-code]', 'MAN HOLE');
        $office->see('Take MAN_HOLE');
        $office->click('[data-test=take-code]');
        $office->click('[data-test=write-catalogue]');
        $office->see('6 types, version 2', 30);
        $office->click('[data-test=try-1]');
        $office->see('version 1');
        self::assertStringNotContainsString('MAN_HOLE', $office->find('[role=group]')->getText(), 'Version 1 had no such type.');
        $office->click('[data-test=collect-HYDRANT]');
        $office->see('1 more place');
        $office->click('[data-test=collect-measure]');
        $office->see('of 10');
        $office->see('ready to keep', 20);
        $office->click('[data-test=collect-keep]');
        // A fence is logged every five metres: at its start, and four times along twenty.
        $office->click('[data-test=collect-FENCE]');
        $office->click('[data-test=collect-log]');
        $office->see('logging every 5 m');
        $office->see('1 place');
        for ($k = 0; $k < 10; ++$k) {
            $office->keys(WebDriverKeys::ARROW_UP);
        }
        $office->see('5 places');
        $office->click('[data-test=collect-log]');
        $office->click('[data-test=collect-keep]');
        $office->click('[data-test=collect-bring]');
        $office->see('2 features agree with version 1 and are in the project', 30);
        $office->click('[data-test=linework]');
        $office->see('FENCE 2');
        $office->go('/p/1/intake');
        $office->see('files, all accepted');
        $office->scroll();
        $office->see('site-inventory-1-collected-HYDRANT-1.csv');
        self::assertSame([], $office->complaints());
    }
}
