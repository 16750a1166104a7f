<?php

declare(strict_types=1);

namespace App\Tests\Browser;

use Demo\Generator;
use Demo\TruthModel;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;

/** A day in the interface, as someone new to it would spend it. */
final class FieldBookTest extends OfficeTestCase
{
    /** Files dropped by hand into a new project: intake, network, terrain, hand-over, in one sitting. */
    public function testANewProjectFromFilesToHandOver(): void
    {
        $o = self::$office;
        $this->newProject('Second tarn');

        foreach ((new Generator(new TruthModel()))->files() as $name => $contents) {
            file_put_contents($o->folder.'/'.$name, $contents);
        }
        foreach ([
            'control-kestrel-tarn.csv' => 'control list', 'rounds-crest.csv' => 'total-station pointings',
            'vectors-static.csv' => 'GNSS vectors', 'pit-topography.csv' => 'surveyed points',
        ] as $name => $kind) {
            $o->bring($o->folder.'/'.$name);
            $o->see($name);
            $o->await(static fn (): ?bool => $kind === $o->driver->executeScript(
                "return document.querySelector('.preview .kind')?.innerText",
            ) ? true : null, "$name as $kind");
            $o->click('[data-test=accept]');
            $o->see("Accepted $name");
        }
        $o->see('4 files, all accepted');

        $o->keys('4');
        $o->see('The network is not adjusted yet');
        $o->click('[data-test=adjust]');
        $o->see('Adjustment 1 fails its global test');
        $o->press('Screening');
        $o->see('Screening proposes to set aside 5');
        $o->press('Set them aside and compare');
        $o->see('Adjustment 2 passes its global test');
        $o->see('Against run 1');
        $o->click('[data-test=accept-coordinates]');
        $o->see('Accepted ✓');

        $o->keys('5');
        $o->see('No surface yet');
        $o->click('[data-test=new-surface]');
        $o->type('#surface-name', 'Pit before');
        $o->choose('[aria-label="Breaklines along codes"]', 'along CREST');
        $o->choose('[aria-label="Breaklines along codes"]', 'along TOE');
        $o->type('#surface-interval', '0.5');
        $o->click('[data-test=save-surface]');
        $o->see('Pit before: 2');
        $o->see('contours every 0.50 m');
        $o->click('[data-test=terrain-tab-volumes]');
        $o->click('[data-test=new-volume]');
        $o->type('[data-test=volume-name]', 'pit to 225');
        $o->type('#volume-elevation', '225');
        $o->click('[data-test=compute-volume]');
        $o->see('against the elevation 225.000 m');

        $o->keys('8');
        foreach ([
            'csv' => 'second-tarn-coordinates.csv', 'dxf' => 'second-tarn-drawing.dxf',
            'pdf' => 'second-tarn-adjustment.pdf',
        ] as $kind => $file) {
            $o->click("[data-test=write-$kind]");
            $o->see($file);
        }
        $o->see('3 files, all fresh');
        $o->see('Nothing was left out.');
    }

    public function testSelectionIsOneOnBothPages(): void
    {
        $o = self::$office;
        $o->go('/p/1/network');
        $o->see('Adjustment 3');
        $o->click('.body .row');
        $o->see('rounds-crest.csv line');
        self::assertCount(1, $o->driver->findElements(WebDriverBy::cssSelector('.row.selected')));
        // Down with Shift extends; the slip counts.
        $o->find('.scroller')->sendKeys([WebDriverKeys::SHIFT.WebDriverKeys::ARROW_DOWN.WebDriverKeys::ARROW_DOWN]);
        $o->see('3 observed values');
        // A click on the sketch: KT05 is selected there, its observations here.
        $o->go('/p/1/network?point=KT05');
        $o->see('selected');
        $count = (int) $o->driver->executeScript("return document.querySelectorAll('.row.selected').length");
        self::assertGreaterThan(5, $count);
        $o->await(
            static fn (): ?bool => (bool) $o->driver->executeScript("return document.querySelector('.map canvas') !== null") ?: null,
            'the map',
        );
    }

    public function testClickingALineOnTheSketchSelectsItsObservations(): void
    {
        $o = self::$office;
        $o->go('/p/1/network');
        $o->see('Adjustment 3');
        $o->find('.map[data-drawn]');
        $o->settle();
        // Half way from KT05 to KT09, in the map's pixels: the map is fitted to the points, north up.
        $hit = null;
        foreach (range(0, 12) as $i) {
            $map = $o->find('.map');
            $size = $map->getSize();
            $o->driver->action()
                ->moveToElement($map, (int) ($size->getWidth() * (0.30 + 0.015 * $i) - $size->getWidth() / 2 + 0), 0)
                ->click()->perform();
            $o->settle();
            $hit = (int) $o->driver->executeScript("return document.querySelectorAll('.row.selected').length");
            if ($hit > 0) {
                break;
            }
        }
        self::assertGreaterThan(0, $hit, 'No line of the network crosses the middle row of the sketch.');
    }

    public function testXSetsAsideComparesAndBringsBackAndStaleThingsSayWhy(): void
    {
        $o = self::$office;
        $o->go('/p/1/network');
        $o->see('Adjustment 3 fails');
        $o->click('.body .row');
        $o->see('Set aside and compare');
        $o->find('.scroller')->sendKeys('x');
        $o->see('Adjustment 4');
        $o->see('Against run 3');
        $o->see('16 stale');
        $o->keys('5');
        $o->find('[data-test=surface-stale]');
        $o->see('rests on stale accepted coordinates');
        $o->click('[data-test=ledger]');
        $o->see('Set aside');
        $o->click('[data-test=recompute]');
        $o->see('Everything is fresh again.', 60);
        $o->await(static fn (): ?bool => str_contains($o->text(), 'stale') ? null : true, 'the page to have loaded what is fresh');
        // Ctrl+Z all the way back.
        $o->keys(WebDriverKeys::ESCAPE);
        $o->go('/p/1/network');
        $o->see('Adjustment 4');
        $this->undo(18);
        $o->see('Adjustment 3 fails');
        self::assertStringNotContainsString('16 stale', $o->text());
    }

    public function testABoundaryDrawnOnTheSketchCutsTheSurface(): void
    {
        $o = self::$office;
        $o->go('/p/1/terrain');
        $o->see('Borrow pit: 2');
        // The sketch is fitted to the surface once its contours are there.
        $o->await(static fn (): ?bool => '20 m' === trim(
            (string) $o->driver->executeScript("return document.querySelector('.scale').innerText"),
        ) ? true : null, 'the sketch to show the surface', 30);
        $o->settle();
        $o->click('[data-test=new-surface]');
        $o->type('#surface-name', 'Drawn');
        $o->choose('[aria-label="Codes"]', 'GROUND');
        $o->find('[data-test=would-be]');
        $o->settle();
        $o->click('[data-test=draw-boundary]');
        $o->see('Click the boundary');
        // A square of 120 pixels at the scale the bar states.
        $metres = (float) $o->driver->executeScript(
            "return parseFloat(document.querySelector('.scale').innerText) / document.querySelector('.scale "
                .".bar').getBoundingClientRect().width * 120",
        );
        $map = $o->find('.map');
        foreach ([[-60, -60], [60, -60], [60, 60], [-60, 60]] as [$dx, $dy]) {
            $o->driver->action()->moveToElement($map, $dx, $dy)->click()->perform();
            usleep(350000); // A hand's pace: two clicks at once would be a double click.
        }
        $o->driver->action()->moveToElement($map, -60, -60)->click()->perform();
        $o->find('.line .el-tag--info');
        $o->click('[data-test=save-surface]');
        $o->see('Drawn: 2');
        preg_match('/over ([\d\x{2009}.]+) m² in plan/u', $o->text(), $match);
        self::assertEqualsWithDelta($metres * $metres, (float) str_replace("\u{2009}", '', $match[1] ?? ''), 0.25 * $metres * $metres);
        $this->undo(2);
    }

    public function testAWholeSetupIsSetAsideAtOnce(): void
    {
        $o = self::$office;
        $o->go('/p/1/network');
        $o->see('Adjustment 3');
        $o->press('Setups');
        $o->see('▲ worse');
        $o->click('.body .row');
        $o->see('observed values, the first: direction KT03/2');
        $o->type('.reason input', 'round 2 is disturbed');
        $o->click('[data-test=toggle-use]');
        $o->see('Adjustment 4');
        $o->see('Against run 3');
        $o->press('Observations');
        $o->see('9 set aside ○'); // four components and angles from before, five directions now
        $this->undo(2);
        $o->see('Adjustment 3');
    }

    public function testUnitsChangeWhatIsShownOnly(): void
    {
        $o = self::$office;
        $o->go('/p/1/network');
        $o->see('Adjustment 3');
        $o->press('Stations');
        $o->see('6028');
        $o->click('[data-test=units]');
        $o->see('Changes what is shown');
        $o->press('international foot', 'label');
        $o->see('easting ft');
        $o->see('19777'); // 6 028 000 m in international feet starts so
        $o->press('metre', 'label');
        $o->see('easting m');
        $o->keys(WebDriverKeys::ESCAPE);
    }

    public function testSearchAndKeys(): void
    {
        $o = self::$office;
        $o->go('/p/1/reference');
        $o->see('in use');
        $o->keys('/');
        $o->type('.search input', 'borrow');
        $o->await(
            static fn (): ?bool => str_contains((string) $o->find('.search .hit')->getText(), 'Borrow pit') ? true : null,
            'the surface to be found',
        );
        $o->keys(WebDriverKeys::ENTER);
        $o->see('Borrow pit: 2');
        $o->click('[data-test=view-3d]');
        $o->find('.three canvas');
        $o->keys('?');
        $o->see('set aside, or bring back');
        $o->keys(WebDriverKeys::ESCAPE);
        $o->keys('1');
        $o->see('all accepted');
    }

    public function testWrongFilesAreExplainedInPlace(): void
    {
        $o = self::$office;
        $o->go('/p/1/intake');
        $o->see('all accepted');
        file_put_contents($o->folder.'/picture.png', "\x89PNG\r\n\x1a\n\0\0\0");
        $o->bring($o->folder.'/picture.png');
        $o->see('picture.png, line 1: this is a binary file, not delimited text; export it as CSV');
        $o->press('Discard');
        $o->press('Discard it');
        $o->see('Discarded picture.png.');
        file_put_contents($o->folder.'/short.csv', "point,easting [m],northing,height [m],code\nQ1,10,20,3,A\nQ2,11,2");
        $o->bring($o->folder.'/short.csv');
        $o->see('In which unit are the lengths (northing)?');
        $o->see('line 3');
        $o->see('h is missing; is the line cut off?');
        $o->press('Discard');
        $o->press('Discard it');
        $o->see('Discarded short.csv.');
    }

    /** Read, shown, taken in and taken out again by jobs, while the page stays. */
    public function testALargeFile(): void
    {
        $o = self::$office;
        $text = "point,easting [m],northing [m],ellipsoidal height [m],code\n";
        for ($i = 0; $i < 30000; ++$i) {
            [$e, $n] = [$i % 200, intdiv($i, 200)];
            $text .= \sprintf("G%d,%.3f,%.3f,%.3f,GROUND\n", $i, 493200.0 + $e, 6028100.0 + $n, 220.0 + 0.01 * $e);
        }
        file_put_contents($o->folder.'/ground.csv', $text);
        $o->go('/p/1/intake');
        $o->see('all accepted');
        $o->bring($o->folder.'/ground.csv');
        $o->see("30\u{2009}000 points", 60.0);
        $o->click('[data-test=accept]');
        $o->see('Accepted ground.csv', 60.0);
        $o->see('points here drawn; zoom in for the rest', 30.0);
        $o->driver->executeScript('document.activeElement.blur()');
        $this->undo(1);
        $o->see('1 file waits to be accepted', 60.0);
        $o->press('ground.csv', '.row');
        $o->see('is read as', 60.0);
        $o->press('Discard');
        $o->press('Discard it');
        $o->see('Discarded ground.csv.');
    }

    public function testAReviewerSeesEverythingAndChangesNothing(): void
    {
        $o = self::$office;
        $o->go('/');
        $o->press('sign out');
        $o->find('#username');
        $o->type('#username', 'review');
        $o->type('#password', 'wrong password');
        $o->click('button[type=submit]');
        $o->see('Name or password is not right.');
        $o->signIn('review');
        $o->go('/p/1/network');
        $o->see('Adjustment 3');
        self::assertNotNull($o->find('[data-test=adjust]')->getAttribute('disabled'));
        $o->go('/p/1/handover');
        $o->see('read back');
        self::assertNotNull($o->find('[data-test=write-csv]')->getAttribute('disabled'));
        $o->go('/');
        $o->press('sign out');
        $o->signIn();
    }

    /** Nothing is cut off or overlaps at the narrowest width that is promised. */
    public function testUsableAtTheNarrowestWidth(): void
    {
        $o = self::$office;
        $o->resize(1024, 768);
        foreach (['intake', 'reference', 'network', 'terrain', 'handover'] as $stage) {
            $o->go("/p/1/$stage");
            $o->find('.sheet h1');
            $o->settle();
            self::assertSame([], $o->driver->executeScript(
                "return [...document.querySelectorAll('.figures-page h1, .figures-page .el-button, .top > *, .course "
                    .".name')].filter(e => { const b = e.getBoundingClientRect(); return b.width > 0 && (b.right > "
                        .'innerWidth + 1 || b.left < -1); }).map(e => e.innerText)',
            ), $stage);
        }
        $o->resize(1280, 800);
    }

    private function undo(int $times): void
    {
        $o = self::$office;
        $undone = static fn (): string => (string) $o->driver->executeScript(
            'return document.body.innerText.match(/Undid entry (\\d+)/)?.[1] ?? ""',
        );
        for ($i = 0; $i < $times; ++$i) {
            $before = $undone();
            $o->driver->getKeyboard()->sendKeys([WebDriverKeys::CONTROL, 'z']);
            $o->await(static fn (): ?bool => '' !== $undone() && $undone() !== $before ? true : null, 'the undo to be done');
        }
    }
}
