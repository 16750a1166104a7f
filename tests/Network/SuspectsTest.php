<?php

declare(strict_types=1);

namespace App\Tests\Network;

use App\Tests\ApiTestCase;
use Demo\TruthModel;

/** Suspects of the demo network: what was planted is named, corrected beside what the file says, and taken back. */
final class SuspectsTest extends ApiTestCase
{
    public function testAPlantedCauseIsNamedCorrectedAndTakenBack(): void
    {
        $this->acceptDemoFiles();
        $this->job('/network/adjust');
        $before = $this->get('/network');
        $found = $this->job('/network/suspects')['outcome'];
        self::assertGreaterThan(300, $found['tried']);
        $words = array_column($found['suspects'], 'words');
        $height = $found['suspects'][(int) array_search('target height of KT06 in setup KT10/1', $words, true)];
        self::assertContains('target height of KT06 in setup KT10/1', $words);
        self::assertEqualsWithDelta(TruthModel::BLUNDERS['height']['metres'], $height['estimate'], 4.0 * $height['sd']);
        self::assertMatchesRegularExpression('/^ht \d\.\d00 for \d\.\d00$/', (string) $height['suggests']);
        self::assertNotSame([], $height['changes']);
        self::assertGreaterThan(3.29, abs($height['rows'][0]['before']));
        self::assertLessThan(3.29, abs($height['rows'][0]['after']));
        self::assertSame(
            array_column($before['rows'], 'observed'), array_column($this->get('/network')['rows'], 'observed'),
            'Looking changes nothing.',
        );

        $this->post('/network/corrections', [
            'cause' => $height['cause'], 'words' => $height['words'], 'changes' => $height['changes'],
            'reason' => 'rod read a stop too low',
        ]);
        $network = $this->get('/network');
        self::assertNotSame([], $network['stale']);
        self::assertSame('target height of KT06 in setup KT10/1', $network['corrections'][0]['words']);
        $corrected = array_values(array_filter($network['rows'], static fn (array $r): bool => null !== $r['recordedHt']));
        self::assertSame(['KT10', 'KT06'], [$corrected[0]['at'], $corrected[0]['to']]);
        self::assertEqualsWithDelta($corrected[0]['recordedHt'] + $height['changes'][0]['add'], $corrected[0]['ht'], 1e-12);
        $this->job('/network/adjust');
        $after = $this->get('/network');
        self::assertLessThan($before['runs'][0]['varianceFactor'], $after['runs'][0]['varianceFactor']);
        self::assertEqualsWithDelta($height['factorAfter'], $after['runs'][0]['varianceFactor'], 1e-9);
        $lineage = json_encode($this->get('/lineage/network'), \JSON_THROW_ON_ERROR);
        self::assertStringContainsString('rod read a stop too low', $lineage);

        // Both reports name the correction.
        foreach (['html', 'pdf'] as $kind) {
            $this->job('/handover', ['kind' => $kind, 'surfaces' => []]);
            $export = array_column($this->get('/handover')['exports'], null, 'kind')[$kind];
            self::assertTrue($export['holds'], json_encode($export, \JSON_THROW_ON_ERROR));
        }
        $html = array_column($this->get('/handover')['exports'], null, 'kind')['html'];
        $this->client->request('GET', "/api/projects/{$this->project}/handover/{$html['id']}/file");
        self::assertStringContainsString('rod read a stop too low', (string) $this->client->getInternalResponse()->getContent());
        $this->call('DELETE', '/network/corrections/'.$after['corrections'][0]['id'], null, 200);
        self::assertSame([], $this->get('/network')['corrections']);
        $this->job('/network/adjust');
        self::assertEqualsWithDelta($before['runs'][0]['varianceFactor'], $this->get('/network')['runs'][0]['varianceFactor'], 1e-12);
    }

    public function testUndoTakesACorrectionBack(): void
    {
        $this->acceptDemoFiles();
        $version = $this->get('/network')['rows'];
        $row = array_values(array_filter($version, static fn (array $r): bool => 'direction' === $r['kind']))[0];
        $seq = $this->post('/network/corrections', [
            'cause' => 'direction', 'words' => 'one direction', 'changes' => [['id' => $row['id'], 'field' => 'v1', 'add' => 359.5]],
        ])['seq'];
        $changed = array_column($this->get('/network')['rows'], null, 'id')[$row['id']];
        self::assertEqualsWithDelta(fmod($row['observed'] + 359.5, 360.0), $changed['observed'], 1e-9);
        self::assertSame($row['observed'], $changed['recorded']);
        $this->post('/ledger/'.$seq.'/undo');
        self::assertSame($version, $this->get('/network')['rows']);
    }

    public function testNonsenseIsRefusedByItsPlace(): void
    {
        $this->acceptDemoFiles();
        $row = $this->get('/network')['rows'][0];
        foreach ([
            [['id' => 9999999, 'field' => 'v1', 'add' => 1.0], '/changes/0/id: there is no such observation'],
            [['id' => $row['id'], 'field' => 'used', 'add' => 1.0], '/changes/0/field: is to, or one of'],
            [['id' => $row['id'], 'field' => 'v1', 'add' => 'x'], '/changes/0/add: is the number to add'],
            [['id' => $row['id'], 'field' => 'to', 'to' => $row['at']], $row['at'].' is the station itself'],
            [['id' => $row['id'], 'field' => 'to', 'to' => ''], '/changes/0/to: is the name of the real target'],
        ] as [$change, $reason]) {
            $answer = $this->call('POST', '/network/corrections', ['cause' => 'x', 'words' => 'y', 'changes' => [$change]], 422);
            self::assertStringContainsString($reason, json_encode($answer, \JSON_UNESCAPED_SLASHES | \JSON_THROW_ON_ERROR));
        }
        self::assertSame([], $this->get('/network')['corrections']);
    }
}
