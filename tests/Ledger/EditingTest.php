<?php

declare(strict_types=1);

namespace App\Tests\Ledger;

use App\Tests\ApiTestCase;

/** Names that look like numbers, two editors on one thing, and requests whose answers were lost. */
final class EditingTest extends ApiTestCase
{
    private const SETTINGS = [
        'directionSd' => 2.0, 'zenithSd' => 3.0, 'distanceConstant' => 0.002, 'distancePpm' => 2.0, 'instrumentCentring' => 0.001,
        'targetCentring' => 0.001, 'heightCentring' => 0.001, 'refraction' => 0.13, 'confidence' => 0.95, 'free' => false,
    ];

    protected function setUp(): void
    {
        parent::setUp();
        $this->accept(
            'c.csv',
            'point,easting [m],northing [m],ellipsoidal height '
                ."[m],code\n01,493612.345,6028050.5,221.25,0\n1e1,493622.345,6028050.5,221.25,00\nKT,493632.345,6028052.5,221.25,X\n",
        );
    }

    public function testNamesThatAreEqualAsNumbersAreOtherNames(): void
    {
        foreach ([['01', '1'], ['1e1', '10'], ['1', '1.0'], ['10', '0xA']] as [$from, $to]) {
            self::assertGreaterThan(0, $this->post('/points/rename', ['from' => $from, 'to' => $to])['seq']);
            $names = array_column($this->get('/points')['points'], 'name');
            self::assertContains($to, $names, "$from to $to");
            self::assertNotContains($from, $names, "$from to $to");
        }
        $this->post('/ledger/0/back');
        self::assertSame([], $this->get('/points')['points']);
    }

    public function testARenamedPointStaysInTheLinesOfSurfaces(): void
    {
        $this->accept(
            'p.csv',
            'point,easting [m],northing [m],ellipsoidal height '
                ."[m],code\nA,493612,6028050,221,T\nB,493622,6028050,222,T\nC,493622,6028060,223,T\nD,493612,6028060,224,T\n",
        );
        $line = ['role' => 'breakline', 'name' => 'edge', 'points' => ['A', 'C'], 'vertices' => []];
        $surface = $this->post(
            '/terrain/surfaces',
            ['name' => 'S', 'roles' => ['surveyed'], 'codes' => ['T'], 'exclude' => ['B'], 'lines' => [$line]],
            202,
        )['surface'];
        $this->post('/points/rename', ['from' => 'A', 'to' => '007']);
        $this->post('/points/rename', ['from' => 'B', 'to' => '7']);
        $view = $this->get('/terrain')['surfaces'][0];
        self::assertSame([['007', 'C'], ['7']], [$view['lines'][0]['points'], $view['exclude']]);
        self::assertSame('done', $this->job('/recompute')['state']);
        self::assertSame([], $this->stale());
        $this->post('/ledger/'.$this->get('')['undo'].'/undo');
        $this->job('/recompute');
        self::assertSame('done', $this->job('/handover', ['kind' => 'dxf', 'surfaces' => [$surface]])['state']);
        // Onto a point of the same line: one vertex, not two at one place.
        $this->post('/points/rename', ['from' => 'C', 'to' => 'D']);
        self::assertSame(['007', 'D'], $this->get('/terrain')['surfaces'][0]['lines'][0]['points']);
    }

    /**
     * @param array<string, mixed> $body
     *
     * @return array<mixed>
     */
    private function editing(string $path, array $body, int $status, ?string $seen, ?string $key = null, string $method = 'PUT'): array
    {
        $this->headers = array_filter(['HTTP_IF_MATCH' => null === $seen ? null : '"'.$seen.'"', 'HTTP_IDEMPOTENCY_KEY' => $key]);
        try {
            return $this->call($method, $path, $body, $status);
        } finally {
            $this->headers = [];
        }
    }

    public function testTheSecondEditorOfAMarkSeesWhatTheFirstDid(): void
    {
        $version = (string) $this->point('KT')['version'];
        $mine = [
            'point' => 'KT', 'e' => 493600.0, 'n' => 6028000.0, 'h' => 220.0, 'held' => 'h', 'sdE' => null,
            'sdN' => null, 'sdH' => null,
        ];
        $first = $this->editing('/control', ['e' => 493633.0] + $mine, 200, $version)['seq'];
        $conflict = $this->editing('/control', $mine, 409, $version);
        self::assertSame(
            ['Someone else changed this.', 'Owner', (string) $first],
            [$conflict['title'], $conflict['author'], $conflict['version']],
        );
        self::assertStringStartsWith('Changed control KT', $conflict['change']);
        self::assertSame([493633.0, 'h'], [(float) $conflict['theirs']['e'], $conflict['theirs']['held']]);
        self::assertSame(493633.0, (float) $this->point('KT')['givenE'], 'Nothing is written over.');
        $this->editing('/control', $mine, 200, $conflict['version']);
        self::assertSame(493600.0, (float) $this->point('KT')['givenE']);
        // Undoing is a change too.
        $seq = $this->get('')['undo'];
        $this->post("/ledger/$seq/undo");
        $this->editing('/control', $mine, 409, (string) $seq);
        $this->editing('/control', $mine, 200, null);
    }

    public function testTheSecondEditorOfASurfaceAndOfTheWeightsToo(): void
    {
        $form = ['name' => 'S', 'roles' => ['surveyed'], 'interval' => 1.0];
        $surface = $this->post('/terrain/surfaces', $form, 202)['surface'];
        $version = (string) $this->get('/terrain')['surfaces'][0]['version'];
        $this->editing("/terrain/surfaces/$surface", ['interval' => 2.0] + $form, 202, $version);
        $conflict = $this->editing("/terrain/surfaces/$surface", ['interval' => 3.0] + $form, 409, $version);
        self::assertSame(2.0, (float) $conflict['theirs']['interval']);
        $this->editing("/terrain/surfaces/$surface", ['interval' => 3.0] + $form, 202, $conflict['version']);

        $version = $this->get('/network')['settingsVersion'];
        $this->editing('/network/settings', self::SETTINGS, 200, $version);
        $conflict = $this->editing('/network/settings', ['directionSd' => 5.0] + self::SETTINGS, 409, $version);
        self::assertSame(2.0, (float) $conflict['theirs']['directionSd']);
        self::assertSame($this->get('/network')['settingsVersion'], $conflict['version']);
        // What does not touch the weights does not stand in their way.
        $this->call('PUT', '/units', ['length' => 'ft', 'angle' => 'gon', 'decimals' => 2], 200);
        $this->editing('/network/settings', ['directionSd' => 5.0] + self::SETTINGS, 200, $conflict['version']);
    }

    public function testARequestSentAgainIsDoneOnce(): void
    {
        $count = $this->get('')['ledgerCount'];
        $units = ['length' => 'ft', 'angle' => 'gon', 'decimals' => 2];
        $seq = $this->editing('/units', $units, 200, null, 'k1')['seq'];
        self::assertSame(['seq' => $seq, 'repeated' => true], $this->editing('/units', $units, 200, null, 'k1'));
        self::assertSame($count + 1, $this->get('')['ledgerCount']);
        self::assertSame($seq + 1, $this->editing('/units', ['decimals' => 3] + $units, 200, null, 'k2')['seq']);
        // An undoing whose answer was lost is not undone by being asked for again.
        $this->editing("/ledger/$seq/undo", [], 409, null, 'k3', 'POST');
        $this->editing('/ledger/'.($seq + 1).'/undo', [], 200, null, 'k4', 'POST');
        $this->editing('/ledger/'.($seq + 1).'/undo', [], 200, null, 'k4', 'POST');
        self::assertSame($count + 3, $this->get('')['ledgerCount']);
        $job = $this->editing('/recompute', [], 202, null, 'k5', 'POST')['job'];
        self::assertSame($job, $this->editing('/recompute', [], 202, null, 'k5', 'POST')['job']);
        self::assertCount(1, $this->get('/jobs'));
    }

    /** @return array<mixed> */
    private function point(string $name): array
    {
        return array_column($this->get('/points')['points'], null, 'name')[$name];
    }
}
