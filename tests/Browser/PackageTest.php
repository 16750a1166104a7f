<?php

declare(strict_types=1);

namespace App\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;

/** A package is chosen, written, read back and opened on the simulated controller; shots come back. */
final class PackageTest extends OfficeTestCase
{
    public function testAPackageIsMadeAndReadBack(): void
    {
        $office = self::$office;
        $office->go('/p/1/handover?page=packages');
        $office->see('Package heap, phase 2 holds 3 surfaces, 5 lines and 27 points');
        $office->press('New package');
        $office->see('A new package');
        $office->type('[data-test=package-name]', 'drains');
        $office->press('Heap, May', '.el-checkbox');
        $office->press('Borrow pit', '.el-checkbox');
        $office->choose('[aria-label="Colour of KERB"]', 'left out');
        $office->click('[data-test=save-package]');
        $office->see('Package drains holds 1 surface, 4 lines and 27 points', 40);
        $office->see('Heap, June');
        $office->see('read back from it, not what was asked for');
        self::assertStringNotContainsString('differs', $office->text());
        self::assertSame([], $office->complaints());
    }

    public function testTheControllerStakesOutAndShotsComeBack(): void
    {
        $office = self::$office;
        $office->go('/p/1/handover?page=packages');
        $office->see('Package heap, phase 2');
        $office->click('[data-test=open-device]');
        $office->see('1 of 3, touch for the next');
        $office->click('[data-test=next-surface]');
        $office->click('[data-test=next-surface]');
        $office->see('3 of 3, touch for the next');
        $isHeight = static fn (): bool => 1 === preg_match('/^[+−]\d+\.\d{3}$/u', $office->find('[data-test=above]')->getText());
        $office->await($isHeight, 'a height above the design');
        $office->click('[data-test=field-stake]');
        $office->choose('[data-test=stake-point]', 'CP01');
        $office->see('to CP01');
        $far = static fn (): float => (float) explode("\n", $office->find('[data-test=to-point]')->getText())[1];
        $before = $office->await(static fn (): float => $far(), 'a distance');
        // Four steps of half a metre towards the east change it by less than they are long, and are shown.
        $office->keys(WebDriverKeys::ARROW_RIGHT, WebDriverKeys::ARROW_RIGHT, WebDriverKeys::ARROW_RIGHT, WebDriverKeys::ARROW_RIGHT);
        $office->await(static fn (): bool => abs($far() - $before) > 0.2 && abs($far() - $before) < 2.1, 'another distance');
        $office->click('[data-test=field-stake]');
        $office->choose('[data-test=stake-line]', 'haul road');
        $office->see('along haul road');
        $office->click('[data-test=field-layers]');
        $office->press('KERB');
        $office->see('off');
        $office->click('[data-test=field-layers]');
        $office->click('[data-test=field-3d]');
        $office->click('[data-test=field-shoot]');
        $office->see('of 10');
        $office->see('shots 1', 20);
        $office->click('[data-test=field-shots]');
        $office->see('10 positions');
        $office->click('[data-test=bring-shots]');
        $office->see('1 shot is in the project', 30);
        $office->go('/p/1/intake');
        $office->see('files, all accepted');
        $office->scroll();
        $office->see('as-built-AB-1.csv');
        self::assertSame([], $office->complaints());
    }
}
