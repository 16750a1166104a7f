<?php

declare(strict_types=1);

namespace App\Tests\Browser;

use PHPUnit\Framework\TestCase;

/** An office with the demo project, its worker, and the demo surveyor signed in; the browser must have nothing to complain of. */
abstract class OfficeTestCase extends TestCase
{
    protected static Office $office;

    public static function setUpBeforeClass(): void
    {
        self::$office = new Office();
        self::$office->startWorker();
        self::$office->signIn();
    }

    public static function tearDownAfterClass(): void
    {
        self::$office->close();
    }

    protected function tearDown(): void
    {
        self::assertSame([], self::$office->complaints(), 'The browser complained.');
    }

    protected function newProject(string $name): void
    {
        $o = self::$office;
        $o->go('/');
        $o->see('New project');
        $o->type('#project-name', $name);
        $o->press('Open the project');
        $o->see('Bring in the field files');
    }
}
