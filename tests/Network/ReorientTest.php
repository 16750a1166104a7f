<?php

declare(strict_types=1);

namespace App\Tests\Network;

use App\Tests\ApiTestCase;

/** Control gets other values: what hangs on it is shown to go with it, goes with it, and comes back. */
final class ReorientTest extends ApiTestCase
{
    public function testAShiftedControlTakesEveryPointWithIt(): void
    {
        $this->acceptDemoFiles();
        $this->job('/network/adjust');
        $this->post('/network/accept');
        $before = array_column($this->get('/points')['points'], null, 'name');
        // The same shift for all four marks: everything goes with it, nothing turns.
        $control = [];
        foreach (['KT01', 'KT04', 'KT07', 'KT08'] as $name) {
            $p = $before[$name];
            $control[] = ['point' => $name, 'e' => $p['givenE'] + 0.25, 'n' => $p['givenN'] - 0.10, 'h' => $p['givenH'] + 0.05];
        }
        $job = $this->job('/network/reorient', ['control' => $control]);
        self::assertSame('done', $job['state'], (string) $job['error']);
        $turns = array_column($job['outcome']['turns'], null, 'station');
        self::assertSame(['KT02', 'KT03', 'KT05', 'KT10', 'KT11', 'KT08'], array_keys($turns));
        self::assertEqualsWithDelta(0.0, $turns['KT05']['rotation'], 0.5 / 3600.0);
        self::assertEqualsWithDelta(0.0, $turns['KT05']['scale'], 2.0);
        self::assertEqualsWithDelta(0.25, $turns['KT02']['e'], 0.0005);
        self::assertEqualsWithDelta(0.05, $turns['KT02']['h'], 0.0005);
        self::assertContains('KT12', array_column($job['outcome']['moves'], 'name'), 'A point that hangs on a set-up goes with it.');
        self::assertSame($before, array_column($this->get('/points')['points'], null, 'name'), 'Worked out, nothing is changed.');

        $job = $this->job('/network/reorient', ['control' => $control, 'apply' => true, 'reason' => 'control list of May']);
        self::assertSame('done', $job['state'], (string) $job['error']);
        $after = array_column($this->get('/points')['points'], null, 'name');
        self::assertEqualsWithDelta($control[0]['e'], $after['KT01']['givenE'], 1e-9);
        self::assertEqualsWithDelta(
            $before['KT12']['e'] + array_column($job['outcome']['moves'], 'e', 'name')['KT12'],
            $after['KT12']['e'],
            2e-5,
        );
        $entry = $this->get('/ledger')['entries'][0] ?? $this->get('/ledger')[0];
        self::assertStringContainsString('Re-oriented on KT01', $entry['title']);
        $this->post("/ledger/{$entry['seq']}/undo");
        $back = array_column($this->get('/points')['points'], null, 'name');
        foreach (['KT01', 'KT05', 'KT12'] as $name) {
            self::assertSame(
                [$before[$name]['e'], $before[$name]['n'], $before[$name]['h']],
                [$back[$name]['e'], $back[$name]['n'], $back[$name]['h']],
            );
        }
        self::assertStringContainsString(
            'the e of KT01 is a number of metres',
            (string) $this->job('/network/reorient', ['control' => [['point' => 'KT01', 'e' => 'x']]])['error'],
        );
        self::assertStringContainsString(
            'is no station',
            (string) $this->job('/network/reorient', ['control' => [['point' => 'KT99', 'e' => 1.0]]])['error'],
        );
    }
}
