<?php

declare(strict_types=1);

namespace App\Tests\HandOver;

use App\Project\Project;
use App\Project\Shown;
use App\Tests\ApiTestCase;
use PHPUnit\Framework\Attributes\DataProvider;
use Smalot\PdfParser\Parser;

/** A report is in the units and decimals the project shows. */
final class ReportUnitsTest extends ApiTestCase
{
    public function testTheAdjustmentReportFollowsTheProject(): void
    {
        $this->acceptDemoFiles();
        $this->job('/network/adjust');
        $this->call('PUT', '/units', ['length' => 'ft', 'angle' => 'gon', 'decimals' => 2, 'heights' => 1], 200);
        self::assertSame('done', $this->job('/handover', ['kind' => 'pdf', 'surfaces' => []])['state']);
        $export = $this->get('/handover')['exports'][0];
        self::assertTrue($export['holds']);
        $text = (string) preg_replace(
            '/\s+/',
            ' ',
            (new Parser())->parseContent($this->download("/handover/{$export['id']}/file"))->getText(),
        );
        self::assertStringContainsString('international feet', $text);
        self::assertStringContainsString('easting ft', $text);
        self::assertStringContainsString('mgon', $text);
        // KT01 is held at 493 120.412 m and 236.418 m; the international foot is 0.3048 m by definition.
        self::assertStringContainsString(\sprintf('%.3f', 493120.412 / 0.3048), $text);
        self::assertStringContainsString(\sprintf('%.2f', 236.418 / 0.3048), $text);
        self::assertStringNotContainsString('493120.4120', $text);
    }

    /** @return iterable<string, array{array<string, int|string>, list<string>}> */
    public static function units(): iterable
    {
        // The US survey foot is 1200/3937 m, a gon nine tenths of a degree, by definition.
        yield 'metric' => [
            ['length' => 'm', 'angle' => 'dms', 'decimals' => 3], ['1200.0000', '12.3', 'mm', '45 30 45.0', '-9.8"'],
        ];
        yield 'survey feet and gon' => [
            ['length' => 'ftUS', 'angle' => 'gon', 'decimals' => 2, 'small' => 0, 'angles' => 0],
            ['3937.000', '0.040', 'ftUS', '50.5694', '-3 mgon'],
        ];
        yield 'decimal degrees' => [
            ['length' => 'm', 'angle' => 'deg', 'decimals' => 0, 'small' => 2], ['1200.0', '12.30', 'mm', '45.512500', '-9.80"'],
        ];
    }

    /**
     * @param array<string, int|string> $units
     * @param list<string>              $said
     */
    #[DataProvider('units')]
    public function testQuantities(array $units, array $said): void
    {
        $project = $this->entities()->find(Project::class, $this->project);
        \assert(null !== $project);
        $project->showIn($units);
        $as = new Shown($project);
        self::assertSame($said, [
            $as->length(1200.0), $as->small(0.0123), $as->smallUnit(), $as->angle(45.5125), $as->smallAngle(-9.8 / 3600.0),
        ]);
    }
}
