<?php

declare(strict_types=1);

namespace App\Tests\Network;

use App\Tests\ApiTestCase;

/** Control edited and marks renamed: what follows, what is refused. */
final class ControlTest extends ApiTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->accept(
            'control.csv',
            "point,easting [m],northing [m],ellipsoidal height [m],held\nA,493000,6028000,200,enh\nB,493000,6028100,200,no\n",
        );
        $this->accept(
            'obs.csv',
            "station,hi [m],target,ht [m],direction [deg],zenith [deg],slope distance [m]\nA,1.5,B,1.5,0,90,100\nA,1.5,B-2,1.5,90,90,100\n",
        );
    }

    /** @return array<string, array<string, mixed>> */
    private function points(): array
    {
        return array_column($this->get('/points')['points'], null, 'name');
    }

    public function testAChangedMarkSaysHowFarItMoved(): void
    {
        $this->call('PUT', '/control', [
            'point' => 'B', 'e' => 493000.03, 'n' => 6028100.04, 'h' => 200.0, 'held' => 'en', 'sdE' => null,
            'sdN' => null, 'sdH' => 0.01,
        ], 200);
        $b = $this->points()['B'];
        self::assertSame(['en', 493000.03, 493000.03, 0.01], [$b['held'], $b['givenE'], $b['e'], $b['sdH']]);
        $entry = $this->get('/ledger')['entries'][0];
        self::assertSame('Changed control B, moved 0.050 m in plan', $entry['title']);
        $this->post("/ledger/{$entry['seq']}/undo");
        self::assertSame('', $this->points()['B']['held']);
        self::assertSame(493000.0, (float) $this->points()['B']['e']);
    }

    public function testWhatCannotBeHeldIsSaid(): void
    {
        self::assertStringContainsString(
            'h cannot be held without a value',
            $this->call('PUT', '/control', ['point' => 'B', 'e' => 1.0, 'n' => 2.0, 'h' => null, 'held' => 'enh'], 422)['detail'],
        );
        self::assertStringContainsString(
            'there is no point Z',
            $this->call('PUT', '/control', ['point' => 'Z', 'e' => 1.0, 'n' => 2.0, 'h' => 3.0], 422)['detail'],
        );
        $this->call('PUT', '/control', ['point' => 'B', 'e' => 1.0, 'n' => 2.0, 'h' => 3.0, 'held' => 'xyz'], 422);
        $this->call('PUT', '/control', ['point' => 'B', 'e' => 1.0, 'n' => 2.0, 'h' => 3.0, 'sdE' => -1.0], 422);
    }

    public function testADatumDefectIsNamedAndMendedByHolding(): void
    {
        $this->call('PUT', '/control', ['point' => 'A', 'e' => 493000.0, 'n' => 6028000.0, 'h' => 200.0, 'held' => ''], 200);
        $job = $this->job('/network/adjust');
        self::assertSame(['failed', ['fault' => 'datum-defect']], [$job['state'], $job['outcome']]);
        self::assertStringContainsString('datum defect', $job['error']);
        self::assertStringContainsString(
            'there is no point Z', $this->call('POST', '/control/hold', ['points' => ['A', 'Z']], 422)['detail'],
        );
        self::assertSame('', $this->points()['A']['held'], 'nothing is held when one cannot be');
        $this->call('POST', '/control/hold', ['points' => ['A', 'B']], 200);
        self::assertSame(['enh', 'enh'], [$this->points()['A']['held'], $this->points()['B']['held']]);
        self::assertSame('Held A, B', $this->get('/ledger')['entries'][0]['title']);
        self::assertSame('done', $this->job('/network/adjust')['state']);
    }

    public function testObservationsFollowANewName(): void
    {
        $this->post('/points/rename', ['from' => 'A', 'to' => 'PILLAR']);
        self::assertSame(['PILLAR'], array_values(array_unique(array_column($this->get('/network')['rows'], 'at'))));
        self::assertArrayHasKey('PILLAR', $this->points());
        self::assertArrayNotHasKey('A', $this->points());
        $this->post('/ledger/'.$this->get('')['undo'].'/undo');
        self::assertSame(['A'], array_values(array_unique(array_column($this->get('/network')['rows'], 'at'))));
    }

    public function testTwoNamesOfOneMarkAreJoined(): void
    {
        $this->post('/points/rename', ['from' => 'B-2', 'to' => 'B']);
        self::assertSame(['B'], array_values(array_unique(array_column($this->get('/network')['rows'], 'to'))));
        self::assertCount(2, $this->points());
    }

    public function testMarksThatSightEachOtherAreTwo(): void
    {
        self::assertStringContainsString(
            'A and B observe each other, so they are two marks',
            $this->post('/points/rename', ['from' => 'A', 'to' => 'B'], 422)['detail'],
        );
        self::assertStringContainsString('there is no point Q', $this->post('/points/rename', ['from' => 'Q', 'to' => 'B'], 422)['detail']);
        $this->post('/points/rename', ['from' => 'A', 'to' => ' '], 422);
        self::assertCount(2, $this->points(), 'Nothing half done.');
        self::assertSame(['A'], array_values(array_unique(array_column($this->get('/network')['rows'], 'at'))));
    }
}
