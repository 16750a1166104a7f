<?php

declare(strict_types=1);

namespace App\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Attributes\DataProvider;

/**
 * Every main view is walked by axe-core against WCAG 2.1 A and AA in both themes, at 1280 pixels and at the narrowest width that
 * is promised, and shown twice as large.
 */
final class AccessTest extends OfficeTestCase
{
    private const VIEWS = [
        'network' => ['/p/1/network', '.body .row'],
        'intake' => ['/p/1/intake', '.body .row'],
        'reference' => ['/p/1/reference', '.hit'],
        'own systems' => ['/p/1/reference?page=own', '.own'],
        'heights' => ['/p/1/reference?page=heights', '.body .row'],
        'localization' => ['/p/1/reference?page=localization', '[data-test=open-1]'],
        'inverse' => ['/p/1/reference?page=inverse', '[data-test=inverse-from]'],
        'baselines' => ['/p/1/baselines', '[data-test=process-all]'],
        'terrain' => ['/p/1/terrain', '[data-test=new-surface]'],
        'hand-over' => ['/p/1/handover', '.body .row'],
        'drawings' => ['/p/1/handover?page=drawings', '[data-test=write-cad]'],
        'packages' => ['/p/1/handover?page=packages', '[data-test=open-device]'],
        'sheets' => ['/p/1/handover?page=sheets', '.body .row'],
        'GIS' => ['/p/1/handover?page=gis', '[data-test=write-gis]'],
        'catalogue' => ['/p/1/handover?page=catalogue', '[data-test=try-1]'],
        'clouds' => ['/p/1/clouds', '[data-test=new-cloud]'],
        'passes' => ['/p/1/clouds?page=passes', '[data-test=section-slider]'],
        'projects' => ['/', '.row'],
    ];

    /** @return iterable<string, array{string, string}> */
    public static function views(): iterable
    {
        yield from self::VIEWS;
    }

    protected function tearDown(): void
    {
        // What axe loads is not the page's.
    }

    #[DataProvider('views')]
    public function testNothingStandsInAnyonesWay(string $path, string $awaited): void
    {
        $o = self::$office;
        foreach (['paper', 'night'] as $theme) {
            $o->go($path);
            $o->find($awaited);
            $o->driver->executeScript('document.documentElement.dataset.theme = arguments[0]', [$theme]);
            self::assertSame([], $this->findings(), "$path, $theme");
        }
    }

    public function testPanelsAndDialogues(): void
    {
        $o = self::$office;
        file_put_contents(
            "$o->folder/silent.csv",
            "Stn,hi,Pt,ht,Hz,V,SD,sky\nKT01,1.5,KT-10,1.6,10.5,90.1,100.2,blue\nKT01,1.5,KT04,1.6,20.5,89.1,x,grey\n",
        );
        file_put_contents("$o->folder/marks.csv", "point,x,y,z\nM1,10,20,1\nM2,30,40,2\n");
        $o->go('/p/1/intake');
        $o->see('all accepted');
        $o->bring("$o->folder/silent.csv", "$o->folder/marks.csv");
        $o->find('[data-test=ask-unit]');
        $o->find('[data-test=names]');
        self::assertSame([], $this->findings(), 'a file with questions');
        $o->press('marks.csv', '.row');
        $o->choose('[aria-label="Kind of file"]', 'control list');
        $o->find('[data-test=ask-control]');
        self::assertSame([], $this->findings(), 'a list with questions');
        $o->go('/p/1/terrain');
        $o->click('[data-test=new-surface]');
        $o->find('#surface-name');
        self::assertSame([], $this->findings(), 'the form of a surface');
        foreach (['control', 'setups', 'runs', 'settings', 'plan'] as $page) {
            $o->go('/p/1/network');
            $o->click("[data-test=tab-$page]");
            self::assertSame([], $this->findings(), "page $page");
        }
        foreach ([
            'levels' => ['Write', 'Results', 'Benchmarks'], 'setups' => ['Plots', 'Traverse', 'Book, reduced', 'As read', 'Placed'],
        ] as $page => $inner) {
            $o->go('/p/1/network');
            $o->click("[data-test=tab-$page]");
            foreach ($inner as $name) {
                $o->press($name, 'label');
                $o->settle();
                self::assertSame([], $this->findings(), "page $page, $name");
            }
        }
        $o->go('/p/1/network');
        $o->click('[data-test=tab-control]');
        $o->click('[data-test=reorient]');
        $o->find('[aria-label="New h of KT01"]');
        self::assertSame([], $this->findings(), 're-orientation');
        $o->go('/p/1/network');
        $o->click('[data-test=tab-suspects]');
        $o->click('[data-test=search-suspects]');
        $o->see('What it touches');
        self::assertSame([], $this->findings(), 'suspects');
        foreach (['l' => '.over .entries', '?' => '.over dl', '/' => '.search input'] as $key => $awaited) {
            $o->go('/p/1/network');
            $o->find('.body .row');
            $o->keys((string) $key);
            $o->find($awaited);
            self::assertSame([], $this->findings(), "key $key");
            $o->keys(WebDriverKeys::ESCAPE);
        }
        foreach (['units' => '.over .el-radio', 'people' => '.over .el-select'] as $button => $awaited) {
            $o->go('/p/1/network');
            $o->click("[data-test=$button]");
            $o->find($awaited);
            self::assertSame([], $this->findings(), $button);
        }
    }

    /** At 1024 pixels, and at 1280 shown twice as large, which leaves 640 by 400: nothing is cut off without a way to reach it. */
    #[DataProvider('views')]
    public function testEverythingIsInReachWhenThereIsLittleRoom(string $path, string $awaited): void
    {
        $o = self::$office;
        foreach ([[1024, 768], [640, 400]] as [$width, $height]) {
            $o->resize($width, $height);
            $o->go($path);
            $o->find($awaited);
            $o->settle();
            self::assertSame([], $o->driver->executeScript(<<<'JS'
                const reach = (e) => {
                  for (let p = e.parentElement; p; p = p.parentElement) {
                    const s = getComputedStyle(p);
                    if (['auto', 'scroll'].includes(s.overflowX) && p.scrollWidth > p.clientWidth) return true;
                  }
                  return false;
                };
                return [...document.querySelectorAll('button, a, input, h1, h2, [role=tab], .el-alert')].filter((e) => {
                  const b = e.getBoundingClientRect();
                  const shown = b.width > 1 && b.height > 1 && e.checkVisibility({ opacityProperty: true, visibilityProperty: true });
                  return shown && (b.right > innerWidth + 1 || b.left < -1) && !reach(e);
                }).map((e) => `${e.tagName} ${e.className} ${e.innerText}`.slice(0, 80));
                JS), "$path at $width by $height");
        }
        $o->resize(1280, 800);
    }

    /** After something is done the keyboard is still somewhere on the page, and where it is can be seen. */
    public function testTheFocusIsSeenAndKept(): void
    {
        $o = self::$office;
        $o->go('/p/1/network');
        $o->find('.body .row');
        $o->click('[data-test=units]');
        $o->find('.over .el-radio');
        $o->keys(WebDriverKeys::ESCAPE);
        $o->await(static fn (): ?bool => 'units' === $o->driver->executeScript('return document.activeElement.dataset.test')
            ? true : null, 'the focus back where the panel was opened');
        // A button that goes away with its press leaves the keyboard where it was.
        $o->click('[data-test=units]');
        $o->find('.over .el-radio');
        $o->press('close');
        $o->await(
            static fn (): ?bool => 'BODY' !== $o->driver->executeScript('return document.activeElement.tagName') ? true : null,
            'a focus',
        );
        $o->go('/p/1/network');
        $o->find('.body .row');
        for ($i = 0; $i < 25; ++$i) {
            $o->keys(WebDriverKeys::TAB);
            self::assertSame('', $o->driver->executeScript(<<<'JS'
                const e = document.activeElement;
                const ring = (x) => x && (getComputedStyle(x).outlineStyle !== 'none' || getComputedStyle(x).boxShadow !== 'none');
                const seen = ring(e) || ring(e.closest('.el-input__wrapper, .el-select__wrapper, .el-tabs__item'))
                  || ring(e.parentElement?.querySelector('.el-checkbox__inner, .el-radio__inner, .el-radio-button__inner'));
                return e === document.body || seen ? '' : e.outerHTML.slice(0, 160);
                JS), "tab $i");
        }
    }

    /** @return list<string> serious and critical findings */
    private function findings(): array
    {
        $o = self::$office;
        $o->settle();
        $o->driver->executeScript((string) file_get_contents(Office::root().'/frontend/node_modules/axe-core/axe.min.js'));

        return $o->driver->executeAsyncScript(<<<'JS'
            const done = arguments[arguments.length - 1];
            axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'] }).then(
              (r) => done(r.violations.filter((v) => ['serious', 'critical'].includes(v.impact)).flatMap((v) =>
                v.nodes.slice(0, 3).map((n) => `${v.id}: ${n.html.slice(0, 140)} ${n.any[0]?.message ?? ''}`.slice(0, 330)))),
              (e) => done([String(e)]),
            );
            JS);
    }
}
