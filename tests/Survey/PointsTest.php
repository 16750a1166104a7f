<?php

declare(strict_types=1);

namespace App\Tests\Survey;

use App\Tests\ApiTestCase;

/** What the pages hold of the points: all once, then what changed. */
final class PointsTest extends ApiTestCase
{
    private const CONTROL = 'point,easting [m],northing [m],ellipsoidal height '
        ."[m],held\n01,493120.4,6028061.2,236.4,yes\n1,493220.4,6028161.2,,no\nΩλ,493320.4,6028261.2,210.25,no\n";

    public function testAllPointsThenWhatChanged(): void
    {
        $this->accept('control.csv', self::CONTROL);
        $all = $this->get('/points');
        self::assertTrue($all['whole']);
        self::assertSame(['01', '1', 'Ωλ'], array_column($all['points'], 'name'));
        self::assertSame([236.4, null, 210.25], array_column($all['points'], 'h'));
        self::assertSame(
            ['enh', 'control.csv', 2, 'global'],
            array_values(array_intersect_key($all['points'][0], ['file' => 0, 'line' => 0, 'held' => 0, 'known' => 0])),
        );

        $this->post('/points/rename', ['from' => '1', 'to' => '1e0']);
        $this->accept('more.csv', "point,easting [m],northing [m],ellipsoidal height [m]\nT1,493120.4,6028061.2,236.4\n");
        $changes = $this->get("/points?since={$all['seq']}");
        self::assertFalse($changes['whole']);
        self::assertSame(['1e0', 'T1'], array_column($changes['points'], 'name'));
        self::assertSame([], $changes['gone']);
        self::assertGreaterThan($all['seq'], $changes['seq']);

        $this->post("/ledger/{$changes['seq']}/undo");
        $undone = $this->get("/points?since={$changes['seq']}");
        self::assertSame([], $undone['points']);
        self::assertSame([$changes['points'][1]['id']], $undone['gone']);
        self::assertSame([[], []], [($same = $this->get("/points?since={$undone['seq']}"))['points'], $same['gone']]);
        self::assertTrue($this->get('/points?since=4711')['whole']);
    }

    public function testAfterManyChangesAllAreSentAgain(): void
    {
        $this->accept('control.csv', self::CONTROL);
        $seq = $this->get('/points')['seq'];
        for ($i = 0; $i < 51; ++$i) {
            $this->post('/points/rename', ['from' => $i % 2 ? 'b' : ($i ? 'a' : '1'), 'to' => $i % 2 ? 'a' : 'b']);
        }
        $answer = $this->get("/points?since=$seq");
        self::assertTrue($answer['whole']);
        self::assertSame(['01', 'b', 'Ωλ'], array_column($answer['points'], 'name'));
    }

    public function testWhatIsNoEntryIsRefused(): void
    {
        foreach (['-1', 'x', '1.5', '99999999999999999999', '٣'] as $since) {
            self::assertStringContainsString('since', $this->get('/points?since='.urlencode($since), 422)['detail']);
        }
    }
}
