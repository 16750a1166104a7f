<?php

declare(strict_types=1);

namespace App\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;

/** Levels typed with the keyboard alone, and a blunder found, put right and taken back. */
final class BlunderTest extends OfficeTestCase
{
    public function testLevelsAreTypedAMissingSetupGoesInBetweenAndTheNetworkGetsThem(): void
    {
        $o = self::$office;
        $this->newProject('Level line');
        $o->go(preg_replace('#/intake.*#', '/network', (string) parse_url($o->driver->getCurrentURL(), \PHP_URL_PATH)) ?? '');
        $o->click('[data-test=write-levels]');
        $o->press('Benchmarks', 'label');
        foreach ([['BM1', '100'], ['BM2', '100.5']] as $i => [$name, $height]) {
            $o->find('[aria-label="Benchmark '.($i + 1).'"]')->sendKeys($name);
            $o->find('[aria-label="Height of benchmark '.($i + 1).'"]')->sendKeys($height);
        }
        $o->click('[data-test=level-settings]');
        $o->see('worked out with these settings');
        $o->press('Write', 'label');

        // Three setups were read; the book says two, and what comes after the gap is typed as it stands.
        $o->find('[data-cell="0-0"] input')->click();
        $this->typed('BM1', '1.5000', '20', 'T1', '1.2000', '20', '1.4000', '20', 'BM2', '0.9000', '20');
        $o->see('closes by +300.0 mm');
        $o->find('[data-cell="1-1"] input')->click();
        $o->driver->switchTo()->activeElement()->sendKeys(WebDriverKeys::INSERT);
        $o->find('[data-cell="5-0"]');
        self::assertSame(
            'T1', $o->find('[data-cell="2-0"] input')->getAttribute('value'),
            'The setup in between begins where the one before ended.',
        );
        $this->typed('0.8000', '20', 'T2', '1.1000', '20');
        self::assertSame('T2', $o->find('[data-cell="4-0"] input')->getAttribute('value'), 'The next one follows without retyping.');
        $o->see('0.0 mm');
        $o->driver->switchTo()->activeElement()->sendKeys(WebDriverKeys::CONTROL.WebDriverKeys::ENTER);
        $o->see('Run 1 is in the book');
        $o->press('Results', 'label');
        $o->see('✓ passes');
        $o->click('[data-test=hand-levels]');
        $o->see('The network has the levelled differences');
    }

    public function testASuspectIsCorrectedComparedAndWithdrawn(): void
    {
        $o = self::$office;
        $o->go('/p/1/network');
        $o->see('Adjustment 3 fails');
        $o->press('Suspects');
        $o->click('[data-test=search-suspects]');
        $o->see('What it touches');
        $o->see('one direction KT03/2 to KT07');
        $o->find('.slip input')->sendKeys('target beside its mark');
        $o->click('[data-test=accept-suspect]');
        $o->see('Adjustment 4');
        $o->see('Against run 3: factor 1.82 → 1.34');
        $o->see('target beside its mark');
        $o->press('Observations');
        $o->find('.body .row');
        $o->press('Suspects');
        $o->press('Withdraw');
        $o->see('Adjustment 5');
        $o->see('factor 1.34 → 1.82');
        self::assertStringNotContainsString('target beside its mark', $o->text());
    }

    public function testAFigureIsPutRightByHandWithAReason(): void
    {
        $o = self::$office;
        $o->go('/p/1/network');
        $o->see('Adjustment');
        $o->click('.body .row');
        $o->click('[data-test=edit-figures]');
        $o->type('[aria-label=Target]', 'KT05');
        $o->find('[aria-label="Reason of the correction"]')->sendKeys('name read from the sketch');
        $o->click('[data-test=correct-figures]');
        $o->see('Against run');
        $o->press('Suspects');
        $o->see('name read from the sketch');
        $o->press('Withdraw');
        $o->await(
            static fn (): ?bool => str_contains($o->text(), 'name read from the sketch') ? null : true, 'the correction to be withdrawn',
        );
    }

    public function testReOrientationIsShownCarriedOutAndUndone(): void
    {
        $o = self::$office;
        $o->go('/p/1/network');
        $o->see('Adjustment');
        $o->press('Control');
        $o->click('[data-test=reorient]');
        $cell = $o->find('[aria-label="New h of KT01"]');
        $was = (string) $cell->getAttribute('value');
        $cell->sendKeys([WebDriverKeys::CONTROL, 'a']);
        $cell->sendKeys('24O');
        $o->see('is not a number');
        $cell->sendKeys([WebDriverKeys::CONTROL, 'a']);
        $cell->sendKeys(\sprintf('%.4f', (float) $was + 0.25));
        $o->click('[data-test=reorient-preview]');
        $o->see('points move, the farthest');
        $o->click('[data-test=reorient-apply]');
        $o->see('Re-oriented. Undo');
        $o->click('[data-test=ledger]');
        $o->see('Re-oriented on KT01');
        $o->go('/p/1/network');
        $o->see('stale');
        $o->driver->getKeyboard()->sendKeys([WebDriverKeys::CONTROL, 'z']);
        $o->see('Undid entry');
        $o->press('Control');
        $o->click('[data-test=reorient]');
        self::assertSame($was, $o->find('[aria-label="New h of KT01"]')->getAttribute('value'));
    }

    /** Cell after cell, with Enter after each. */
    private function typed(string ...$cells): void
    {
        foreach ($cells as $cell) {
            self::$office->driver->switchTo()->activeElement()->sendKeys($cell.WebDriverKeys::ENTER);
            self::$office->settle();
        }
        self::assertNotSame([], self::$office->driver->findElements(WebDriverBy::cssSelector('[data-cell]')));
    }
}
