<?php

declare(strict_types=1);

namespace App\Tests\Clouds;

use App\Tests\ApiTestCase;
use Demo\Street;
use Smalot\PdfParser\Parser;

/** Passes: drives brought in, laid onto each other, looked at across the way, and handed over as a new trajectory. */
final class PassesTest extends ApiTestCase
{
    private const HEADER = 'time,e,n,h,roll,pitch,heading';
    private const WRONG = [0.25, -0.2, 0.1];

    /** @var array<string, int> */
    private array $files = [];

    /** @param array{float, float, float} $off of the second drive */
    private function drives(array $off = self::WRONG): void
    {
        $street = new Street(60.0, true, 7, [493_000.0, 6_028_000.0, 220.0]);
        $first = $street->drive(1000.0, static fn (float $t): array => [0.0, 0.0, 0.0], 1_500);
        $second = $street->drive(2000.0, static fn (float $t): array => $off, 1_500);
        foreach (['first' => $first, 'second' => $second] as $name => $drive) {
            $this->files[$name] = $this->accept("$name.csv", Street::csv(self::HEADER, $drive['trajectory']))['id'];
            $this->files["$name scan"] = $this->accept("$name.las", Street::las($drive['points']))['id'];
        }
    }

    /**
     * @param array<string, mixed> $more
     *
     * @return array<string, mixed>
     */
    private function align(array $more = [], string $state = 'done'): array
    {
        $job = $this->job('/clouds/passes', $more + [
            'name' => 'second', 'trajectory' => $this->files['second'] ?? 0, 'cloud' => $this->files['second scan'] ?? 0,
            'referenceTrajectory' => $this->files['first'] ?? 0, 'referenceCloud' => $this->files['first scan'] ?? 0,
        ]);
        self::assertSame($state, $job['state'], (string) ($job['error'] ?? ''));

        return $job;
    }

    public function testAPassIsLaidOntoAnotherLookedAtAndHandedOver(): void
    {
        $this->drives();
        [$way] = $this->get('/clouds/passes')['trajectories'];
        self::assertSame([76, 60.0], [$way['rows'], round($way['length'], 3)]);
        $this->align();
        [$pass] = $this->get('/clouds/passes')['passes'];
        self::assertSame(['corrected', 'second.csv', 'first.csv', 4, 4, []], [
            $pass['status'], $pass['of'], $pass['onto'], $pass['stations'], $pass['used'], $pass['stale'],
        ]);
        self::assertLessThan(0.01, $pass['rmsAfter']);
        self::assertEqualsWithDelta(sqrt(0.0625 + 0.04 + 0.01), $pass['greatest'], 0.01);
        foreach ($this->get('/clouds/passes/1')['stations'] as $station) {
            self::assertEqualsWithDelta([-0.25, 0.2, -0.1], $station['shift'], 0.01);
        }
        // Across the way both show the same: the kerb stands 0.12 m above the road on both sides, 4 m from the middle.
        $section = $this->get('/clouds/passes/1/section/30');
        foreach (['pass', 'reference'] as $of) {
            [$offsets, $heights] = $section[$of];
            self::assertGreaterThan(20, \count($offsets));
            foreach ($offsets as $i => $offset) {
                if (abs($offset) < 1.9) {
                    self::assertEqualsWithDelta(220.0, $heights[$i], 0.04, "$of at $offset");
                }
            }
        }
        [$w, $s, $e, $n] = $section['ends'];
        self::assertEqualsWithDelta(24.0, hypot($e - $w, $n - $s), 1e-6);

        // The scan made again lies where the truth is: where it came to less what it was wrong by.
        $plain = $this->job('/clouds', ['name' => 'as it came', 'files' => [$this->files['second scan']]]);
        $again = $this->job('/clouds', ['name' => 'made again', 'passes' => [1]]);
        self::assertSame(['done', 'done'], [$plain['state'], $again['state']], (string) $again['error']);
        [$came, $made] = $this->get('/clouds')['clouds'];
        self::assertSame(['second v1', $came['points'], []], [$made['of'], $made['points'], $made['stale']]);
        foreach ($came['extent'] as $k => $v) {
            self::assertEqualsWithDelta($v - self::WRONG[$k % 3], $made['extent'][$k], 0.01);
        }

        self::assertSame('done', $this->job('/handover', ['kind' => 'trajectory-csv', 'surfaces' => [1]])['state']);
        [$file] = $this->get('/handover')['exports'];
        self::assertTrue($file['holds']);
        $rows = array_map(str_getcsv(...), explode("\n", trim($this->download("/handover/{$file['id']}/file"))));
        self::assertSame(explode(',', self::HEADER), $rows[0]);
        $truth = (new Street(60.0, true, 7, [493_000.0, 6_028_000.0, 220.0]))->placed([24.0, 0.0, 2.0]);
        self::assertEqualsWithDelta($truth, array_map(floatval(...), \array_slice($rows[31], 1, 3)), 0.01);
    }

    public function testDrivesFarApartAskForAPairAndEveryRunIsAVersion(): void
    {
        $this->drives([2.4, -1.6, 0.3]);
        $this->align();
        [$pass] = $this->get('/clouds/passes')['passes'];
        self::assertSame(['needs-pre-shift', 0, 1], [$pass['status'], $pass['used'], $pass['run']]);
        self::assertStringContainsString('give a pre-shift', $pass['reason']);
        $refused = $this->job('/handover', ['kind' => 'trajectory-csv', 'surfaces' => [1]]);
        self::assertStringContainsString('one pass that is corrected', (string) $refused['error']);
        $scan = $this->job('/clouds', ['name' => 'made again', 'passes' => [1]]);
        self::assertStringContainsString('is not corrected: its scan stays as it came', (string) $scan['error']);

        $this->align(['number' => 1, 'preShift' => [-2.2, 1.4, -0.4]]);
        [$pass] = $this->get('/clouds/passes')['passes'];
        self::assertSame(['corrected', 2, [-2.2, 1.4, -0.4]], [$pass['status'], $pass['run'], $pass['preShift']]);
        $this->undoLast();
        self::assertSame('needs-pre-shift', $this->get('/clouds/passes')['passes'][0]['status'], 'what was in use before is in use again');
    }

    /**
     * The first drive is registered to control, with no other drive; the second is laid onto it as it is then. Given five centimetres above
     * where the first drive sees them, so that both end where control says. Check points only say how far off it is.
     */
    public function testRegisteredToControlAndLaidOntoThat(): void
    {
        $this->drives();
        $street = new Street(60.0, true, 7, [493_000.0, 6_028_000.0, 220.0]);
        $head = "point,easting [m],northing [m],ellipsoidal height [m]\n";
        $up = 0.05;
        $lines = $seen = [];
        foreach (['T1' => 5.0, 'T2' => 55.0, 'K1' => 30.0] as $name => $along) {
            [$e, $n, $h] = $street->placed([$along, 4.5, 0.2]);
            $lines[$name] = \sprintf("%s,%.3f,%.3f,%.3f\n", $name, $e, $n, $h + $up);
            $seen['first'][] = ['target' => $name, 'time' => 1000.0 + $along / 8.0, 'e' => $e, 'n' => $n, 'h' => $h];
            [$de, $dn, $dh] = self::WRONG;
            $seen['second'][] = ['target' => $name, 'time' => 2000.0 + $along / 8.0, 'e' => $e + $de, 'n' => $n + $dn, 'h' => $h + $dh];
        }
        foreach (['hold' => $lines['T1'].$lines['T2'], 'check' => $lines['K1']] as $as => $rows) {
            $file = $this->bring("$as.csv", $head.$rows);
            $this->call('PUT', "/intake/{$file['id']}/mapping", ['kind' => 'control'], 200);
            $this->call('PUT', "/intake/{$file['id']}/meaning", ['control' => $as], 200);
            $this->post("/intake/{$file['id']}/accept");
        }
        self::assertSame(['T1', 'T2', 'K1'], array_column($this->get('/clouds/passes')['points'], 'name'));

        // Before anything is marked it stands as it was driven; what its scan shows is pointed at in the section.
        $alone = [
            'name' => 'first', 'trajectory' => $this->files['first'], 'cloud' => $this->files['first scan'],
            'referenceTrajectory' => null, 'referenceCloud' => null,
        ];
        $this->align($alone);
        [$first] = $this->get('/clouds/passes')['passes'];
        self::assertSame(['as-driven', '', null, 0.0], [$first['status'], $first['onto'], $first['control'], (float) $first['greatest']]);
        $section = $this->get('/clouds/passes/1/section/30');
        self::assertSame([[], []], $section['reference']);
        $this->align(['number' => 1, 'targets' => $seen['first']] + $alone);
        [$first] = $this->get('/clouds/passes')['passes'];
        self::assertSame(['corrected', 2, 2, 1], [$first['status'], $first['run'], $first['control']['count'], $first['check']['count']]);
        self::assertEqualsWithDelta([0.0, 0.0, 0.0, 0.0], [...$first['check']['after'], ...$first['without']], 1e-3);
        self::assertEqualsWithDelta($up, $first['greatest'], 1e-3);

        $this->align(['referenceTrajectory' => null, 'referenceCloud' => null, 'referencePass' => 1, 'targets' => $seen['second']]);
        $pass = $this->get('/clouds/passes')['passes'][1];
        self::assertSame(['corrected', 'first v2', 4, 2, []], [
            $pass['status'], $pass['onto'], $pass['used'], $pass['control']['count'], $pass['stale'],
        ]);
        self::assertLessThan(0.01, max([...$pass['check']['after'], ...$pass['control']['after']]));
        self::assertEqualsWithDelta([hypot(0.25, 0.2), 0.05], $pass['check']['before'], 1e-3);
        $figures = $this->get('/clouds/passes/2');
        foreach ($figures['stations'] as $station) {
            self::assertEqualsWithDelta([-0.25, 0.2, -0.1 + $up], $station['shift'], 0.01, 'Onto the other as its control has it.');
        }
        foreach ($figures['targets'] as $t) {
            self::assertSame('K1' === $t['target'] ? 'check' : 'control', $t['role']);
            self::assertEqualsWithDelta(0.0, max(array_map(abs(...), $t['after'])), 0.012);
            self::assertSame('check' === $t['role'], null === $t['without']);
        }
        // The section shows what stays where its control has it: the road is up by as much.
        [$offsets, $heights] = $this->get('/clouds/passes/2/section/30')['reference'];
        foreach ($offsets as $i => $offset) {
            if (abs($offset) < 1.9) {
                self::assertEqualsWithDelta(220.0 + $up, $heights[$i], 0.04);
            }
        }

        // What it rests on is laid out of reach of a circle, and makes it stale when it is registered anew.
        $round = $this->align(['number' => 1, 'referencePass' => 2] + $alone, 'failed');
        self::assertStringContainsString('rests on the drive that would be laid onto it', (string) $round['error']);
        self::assertSame('done', $this->job('/handover', ['kind' => 'pass-pdf', 'surfaces' => [1]])['state']);
        self::assertSame('done', $this->job('/handover', ['kind' => 'trajectory-csv', 'surfaces' => [1]])['state']);
        self::assertTrue($this->get('/handover')['exports'][0]['holds']);
        $this->align(['number' => 1, 'targets' => \array_slice($seen['first'], 0, 1)] + $alone);
        self::assertSame(['newer pass first'], array_map(mb_strtolower(...), $this->get('/clouds/passes')['passes'][1]['stale']));
        $this->undoLast();

        self::assertSame('done', $this->job('/handover', ['kind' => 'pass-pdf', 'surfaces' => [2]])['state']);
        $file = $this->get('/handover')['exports'][2];
        self::assertTrue($file['holds'], json_encode($file['checks'], \JSON_THROW_ON_ERROR));
        $text = (new Parser())->parseContent($this->download("/handover/{$file['id']}/file"))->getText();
        $text = (string) preg_replace('/\s+/', ' ', $text);
        $said = ['Both drives agree to', 'Version 1 of its trajectory is in use', 'K1', 'compared with first v2', '1 sighting of check'];
        foreach ($said as $words) {
            self::assertStringContainsString($words, $text);
        }

        foreach ([
            'X is no control or check point' => [['target' => 'X'] + $seen['first'][0]],
            'T1 was not seen then: the drive lasts from 1000.00' => [['time' => 9.0] + $seen['first'][0]],
            'show T2 and T1 exchanged' => [['target' => 'T2'] + $seen['first'][0], ['target' => 'T1'] + $seen['first'][1]],
        ] as $words => $targets) {
            $failed = $this->align(['number' => 1, 'targets' => $targets] + $alone, 'failed');
            self::assertStringContainsString($words, (string) $failed['error']);
        }
        $this->call('POST', '/clouds/passes', ['name' => 'x', 'trajectory' => 1, 'cloud' => 2, 'referenceTrajectory' => 3,
            'referenceCloud' => 4, 'targets' => [['target' => 'T1']], ], 422);
    }

    /** Painted marks are pointed at from above, in the middle of what is bright, and bring the drive back to where it was. */
    public function testMarksAreSeenFromAboveAndPointedAt(): void
    {
        $marks = ['M1' => [14.0, 5.2], 'M2' => [52.0, -5.3], 'M3' => [30.0, 5.1]];
        $street = new Street(60.0, true, 7, [493_000.0, 6_028_000.0, 220.0]);
        $off = static fn (float $t): array => [0.2, -0.1 - 0.01 * ($t - 1000.0), 0.06];
        $drive = $street->drive(1000.0, $off, 300, 8.0, array_values($marks));
        $this->files['drive'] = $this->accept('drive.csv', Street::csv(self::HEADER, $drive['trajectory']))['id'];
        $this->files['drive scan'] = $this->accept('drive.las', Street::las($drive['points']))['id'];
        $lines = array_map(static fn (string $name, array $at): string => vsprintf(
            "$name,%.4f,%.4f,%.4f\n", $street->placed([$at[0], $at[1], 0.12]),
        ), array_keys($marks), $marks);
        $head = "point,easting [m],northing [m],ellipsoidal height [m]\n";
        foreach (['hold' => $lines[0].$lines[1], 'check' => $lines[2]] as $as => $rows) {
            $file = $this->bring("$as.csv", $head.$rows);
            $this->call('PUT', "/intake/{$file['id']}/mapping", ['kind' => 'control'], 200);
            $this->call('PUT', "/intake/{$file['id']}/meaning", ['control' => $as], 200);
            $this->post("/intake/{$file['id']}/accept");
        }
        $alone = [
            'name' => 'drive', 'trajectory' => $this->files['drive'], 'cloud' => $this->files['drive scan'],
            'referenceTrajectory' => null, 'referenceCloud' => null,
        ];
        $this->align($alone);
        $targets = [];
        foreach (array_keys($marks) as $name) {
            $around = $this->post('/clouds/passes/1/around', ['target' => $name]);
            $bright = array_keys(array_filter($around['intensity'], static fn (float $i): bool => $i > 30_000));
            self::assertGreaterThan(5, \count($bright));
            $of = static fn (string $axis): array => array_intersect_key($around[$axis], array_flip($bright));
            $middle = static fn (string $axis): float => array_sum($of($axis)) / \count($bright);
            $targets[] = $this->post('/clouds/passes/1/seen', ['target' => $name, 'east' => $middle('east'), 'north' => $middle('north')]);
        }
        $this->align(['number' => 1, 'targets' => $targets] + $alone);
        [$pass] = $this->get('/clouds/passes')['passes'];
        self::assertSame(['corrected', 1], [$pass['status'], $pass['check']['count']]);
        self::assertLessThan(0.03, $pass['check']['after'][0], 'a mark of some dozen points');
        self::assertLessThan(0.01, $pass['check']['after'][1]);
        self::assertEqualsWithDelta(hypot(0.2, 0.1375), $pass['check']['before'][0], 0.03);

        $this->post('/clouds/passes/1/seen', ['target' => 'M1', 'east' => 9.0, 'north' => 0.0], 422);
        $this->post('/clouds/passes/1/around', ['target' => 'M9'], 422);
    }

    public function testWhatCannotBeAlignedSaysWhy(): void
    {
        $this->drives();
        $none = $this->accept('plain.xyz', "493000.5 6028000.5 220.25\n493001.5 6028000.5 220.25\n")['id'];
        self::assertStringContainsString('has no column "time"', (string) $this->align(['cloud' => $none], 'failed')['error']);
        self::assertStringContainsString('no such trajectory', (string) $this->align(['trajectory' => $none], 'failed')['error']);
        $request = ['name' => 'x', 'trajectory' => 1, 'cloud' => 2, 'referenceTrajectory' => 3, 'referenceCloud' => 4];
        $this->post('/clouds/passes', ['referenceTrajectory' => 1] + $request, 422);
        $this->post('/clouds/passes', ['number' => 9] + $request, 404);
        $this->post('/clouds/passes', ['referencePass' => 1] + $request, 422);
        $this->post('/clouds/passes', ['referenceCloud' => null] + $request, 422);
        $this->get('/clouds/passes/7', 404);
        $bad = $this->bring('back.csv', self::HEADER."\n2,1,1,1,0,0,0\n1,1,1,1,0,0,0\n");
        self::assertStringContainsString('is not after', (string) json_encode($bad));
        self::assertFalse($bad['acceptable']);
    }
}
