<?php

declare(strict_types=1);

namespace App\Tests\Ledger;

use App\Tests\ApiTestCase;

/** Operations, undo, lineage and recomputation across the whole slice. */
final class LedgerTest extends ApiTestCase
{
    private int $surface;

    protected function setUp(): void
    {
        parent::setUp();
        $this->acceptDemoFiles();
        $this->job('/network/adjust');
        $this->post('/network/accept');
        $names = array_column(array_filter($this->get('/points')['points'], static fn (array $p): bool => 'CREST' === $p['code']), 'name');
        $started = $this->post('/terrain/surfaces', [
            'name' => 'Pit',
            'roles' => ['surveyed'],
            'lines' => [['role' => 'breakline', 'name' => 'crest', 'points' => $names, 'vertices' => []]],
            'interval' => 0.5,
        ], 202);
        $this->surface = $started['surface'];
        $this->job('/terrain/volumes', ['name' => 'Pit', 'surface' => $this->surface, 'against' => 'elevation', 'elevation' => 225.0]);
        foreach (['csv' => [], 'dxf' => [$this->surface], 'pdf' => []] as $kind => $surfaces) {
            self::assertSame('done', $this->job('/handover', ['kind' => $kind, 'surfaces' => $surfaces])['state']);
        }
    }

    public function testEveryOperationIsThereWithAuthorTimeAndImages(): void
    {
        $entries = $this->get('/ledger')['entries'];
        self::assertSame(range(\count($entries), 1), array_column($entries, 'seq'));
        self::assertSame(['Owner'], array_values(array_unique(array_column($entries, 'author'))));
        self::assertSame([
            'hand-over', 'hand-over', 'hand-over', 'compute-volume', 'compute-surface', 'define-surface',
            'accept-coordinates', 'adjust-network', 'accept-file', 'receive-file', 'accept-file', 'receive-file',
            'accept-file', 'receive-file', 'accept-file', 'receive-file',
        ], array_column($entries, 'operation'));
        $accepted = $this->get('/ledger/10');
        self::assertStringContainsString('Accepted coordinates of 12 stations', $accepted['entry']['title']);
        $moved = array_values(array_filter($accepted['changes'], static fn (array $c): bool => isset($c['before']['e'], $c['after']['e'])));
        self::assertNotSame([], $moved);
        self::assertNotSame($moved[0]['before']['e'], $moved[0]['after']['e']);
        self::assertSame([], $this->stale());
    }

    public function testSettingAsideMakesEverythingAboveStaleSaysWhyAndOneActionRecomputesInOrder(): void
    {
        $worst = $this->worst();
        $this->post('/network/use', ['rows' => [['id' => $worst['id'], 'component' => null]], 'aside' => true, 'reason' => 'target moved']);
        $stale = $this->stale();
        self::assertSame([
            'network', 'coordinates', 'surface:'.$this->surface, 'volume:1', 'export:csv',
            'export:dxf:'.$this->surface, 'export:pdf',
        ], array_keys($stale));
        self::assertSame(['observations changed'], $stale['network']);
        self::assertSame(['rests on stale network adjustment'], $stale['coordinates']);
        self::assertSame(['rests on stale accepted coordinates'], $stale['surface:'.$this->surface]);
        self::assertContains('rests on stale surface Pit', $stale['export:dxf:'.$this->surface]);
        self::assertSame('stale', array_column($this->get('')['stages'], 'state', 'key')['handover']);
        $before = array_column($this->get('/points')['points'], 'e', 'name');

        // A stale thing is not handed over.
        $refused = $this->job('/handover', ['kind' => 'pdf']);
        self::assertSame('failed', $refused['state']);
        self::assertStringContainsString('is stale (observations changed)', $refused['error']);

        $job = $this->job('/recompute');
        self::assertSame('done', $job['state']);
        self::assertSame([], $this->stale());
        $operations = array_reverse(\array_slice(array_column($this->get('/ledger')['entries'], 'operation'), 0, 7));
        self::assertSame(
            ['adjust-network', 'accept-coordinates', 'compute-surface', 'compute-volume', 'hand-over', 'hand-over', 'hand-over'],
            $operations,
        );
        self::assertNotSame($before, array_column($this->get('/points')['points'], 'e', 'name'));
        self::assertCount(3, $this->get('/handover')['archive'], 'What was handed over before is kept.');
    }

    public function testLineageReachesDownToFilesAndDecisions(): void
    {
        $worst = $this->worst();
        $this->post('/network/use', ['rows' => [['id' => $worst['id'], 'component' => null]], 'aside' => true, 'reason' => 'target moved']);
        $this->job('/recompute');
        $steps = $this->get('/lineage/volume:1');
        $text = implode("\n", array_map(static fn (array $s): string => str_repeat(' ', $s['depth']).$s['text'], $steps));
        self::assertMatchesRegularExpression('/^Volume Pit.* by Owner\n Surface Pit, run 2/', $text);
        self::assertStringContainsString('points of pit-topography.csv (sha-256', $text);
        self::assertStringContainsString('   Network adjustment, run 2', $text);
        self::assertStringContainsString('174 observations of rounds-crest.csv', $text);
        self::assertStringContainsString('1 set aside by Owner: target moved', $text);
        self::assertStringContainsString('the default weights', $text);
        self::assertSame([], $this->get('/lineage/nothing'));
    }

    public function testUndoWorksAcrossAllAndLeavesNothingStale(): void
    {
        $tables = ['point', 'observation', 'surface', 'result', 'survey_file'];
        $image = fn (): array => array_map(fn (string $t): array => array_map(
            static fn (array $row): array => array_diff_key($row, ['version' => 0]), // counts on
            $this->database()->fetchAllAssociative("SELECT * FROM $t WHERE project_id = ? ORDER BY id", [$this->project]),
        ), $tables);
        $before = $image();
        $worst = $this->worst();
        $this->post('/network/use', ['rows' => [['id' => $worst['id'], 'component' => null]], 'aside' => true, 'reason' => 'try']);
        $this->call('PUT', '/control', ['point' => 'KT01', 'e' => 493120.5, 'n' => 6028061.2, 'h' => 236.4, 'held' => 'enh'], 200);
        $this->post('/points/rename', ['from' => 'KT12', 'to' => 'KT12A']);
        $this->call('PUT', '/units', ['length' => 'ft', 'angle' => 'gon', 'decimals' => 2], 200);
        $this->job('/recompute');
        self::assertNotEquals($before, $image());
        $last = $this->get('')['ledgerCount'];
        for ($i = 0; $i < $last - 16; ++$i) {
            $seq = $this->get('')['undo'];
            self::assertSame($last - $i, $seq);
            $this->post("/ledger/$seq/undo");
        }
        self::assertEquals($before, $image());
        self::assertSame([], $this->stale());
        self::assertSame('m', $this->get('')['units']['length']);
    }

    public function testDoAgainAndBackToHere(): void
    {
        $worst = $this->worst();
        $this->post('/network/use', ['rows' => [['id' => $worst['id'], 'component' => null]], 'aside' => true, 'reason' => 'try']);
        $seq = $this->get('')['undo'];
        $this->post("/ledger/$seq/undo");
        self::assertSame([], $this->stale());
        $redo = $this->get('')['redo'];
        $this->post("/ledger/$redo/undo");
        self::assertArrayHasKey('network', $this->stale());

        $preview = $this->get('/ledger/8/back');
        self::assertCount($this->get('')['ledgerCount'] - 8, $preview['entries']);
        $this->post('/ledger/8/back');
        self::assertSame([], $this->get('/network')['runs']);
        self::assertSame([], $this->get('/terrain')['surfaces']);
        self::assertSame([], $this->get('/handover')['exports']);
        // And going back is itself undone.
        $this->post('/ledger/'.$this->get('')['undo'].'/undo');
        self::assertCount(3, $this->get('/handover')['exports']);
    }

    public function testAnEarlierEntryUnderALaterOneCannotBeUndoneAlone(): void
    {
        $this->call('PUT', '/control', ['point' => 'KT04', 'e' => 493212.0, 'n' => 6028408.0, 'h' => 244.0, 'held' => ''], 200);
        $first = $this->get('')['undo'];
        $this->call('PUT', '/control', ['point' => 'KT04', 'e' => 493213.0, 'n' => 6028408.0, 'h' => 244.0, 'held' => ''], 200);
        $problem = $this->post("/ledger/$first/undo", [], 409);
        self::assertStringContainsString('Go back to before this entry instead', $problem['detail']);
        $this->post('/ledger/9999/undo', [], 404);
    }

    public function testChangedControlMakesStale(): void
    {
        $this->call('PUT', '/control', ['point' => 'KT01', 'e' => 493120.5, 'n' => 6028061.2, 'h' => 236.4, 'held' => 'enh'], 200);
        self::assertSame(['control coordinates changed'], $this->stale()['network']);
        $this->call('PUT', '/units', ['length' => 'ft', 'angle' => 'gon', 'decimals' => 2], 200);
        self::assertSame(['control coordinates changed'], $this->stale()['network'], 'Units change what is shown only.');
    }

    /** @return array<string, mixed> */
    private function worst(): array
    {
        $rows = array_filter($this->get('/network')['rows'], static fn (array $r): bool => $r['used'] && null !== $r['standardized']);
        usort($rows, static fn (array $a, array $b): int => abs($b['standardized']) <=> abs($a['standardized']));

        return $rows[0];
    }

    public function testUndoingAChangeOfSystemGivesBackEveryBitAndNothingIsStale(): void
    {
        $points = static fn (array $view): array => array_map(
            static fn (array $p): array => [$p['name'], $p['e'], $p['n'], $p['h'], $p['givenE']],
            $view['points'],
        );
        $before = $points($this->get('/points'));
        foreach (['EPSG:25829', 'EPSG:32631'] as $reference) {
            $seq = $this->call('PUT', '/reference', ['reference' => $reference, 'heights' => 'ellipsoidal'], 200)['seq'];
            self::assertNotSame([], $this->stale());
            $this->post("/ledger/$seq/undo");
            self::assertSame($before, $points($this->get('/points')));
            self::assertSame([], $this->stale());
        }
    }
}
