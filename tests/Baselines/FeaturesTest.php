<?php

declare(strict_types=1);

namespace App\Tests\Baselines;

use App\Tests\ApiTestCase;
use Demo\Generator;
use Demo\Gnss\Receiver;
use Demo\Gnss\RoverWalk;
use Demo\Gnss\Sessions;
use Demo\Gnss\Sky;
use Demo\TruthModel;

/** Code-differential correction of rover features. */
final class FeaturesTest extends ApiTestCase
{
    private int $file;

    private int $reference;

    protected function setUp(): void
    {
        parent::setUp();
        $this->accept('control.csv', (new Generator(new TruthModel()))->files()['control-kestrel-tarn.csv']);
        $sessions = (new Sessions(new TruthModel()))->files();
        foreach (['kestrel-tarn-124.31p' => $sessions['kestrel-tarn-124.31p'], 'kt01-0900.31o' => $sessions['kt01-0900.31o']]
            + (new RoverWalk(new TruthModel()))->files() as $name => $contents) {
            $this->accept($name, 'kt01-0900.31o' === $name ? (string) gzencode($contents) : $contents);
        }
        $this->file = $this->get('/baselines/features')['files'][0]['id'];
        $this->reference = array_column($this->get('/baselines')['occupations'], 'id', 'marker')['KT01'];
    }

    /** Metres before, decimetres after (common practice for codes), each with a precision that holds. */
    public function testFeaturesAreCorrectedToWhatCodesAreWorth(): void
    {
        $request = ['file' => $this->file, 'references' => [$this->reference], 'position' => 'mark', 'mark' => 'KT01'];
        $job = $this->job('/baselines/features', $request);
        self::assertSame('done', $job['state'], (string) ($job['error'] ?? ''));
        $file = $this->get('/baselines/features')['files'][0];
        self::assertSame([9, 9, 105, 105], [$file['features'], $file['corrected'], $file['positions'], $file['covered']]);
        self::assertSame(9, $file['before'][6], 'The rover claims 2.5 m.');
        self::assertSame(9, array_sum(\array_slice($file['after'], 2, 3)), 'Between 5 cm and a metre.');
        $within = 0;
        $rows = $this->get("/baselines/features/{$this->file}")['rows'];
        foreach (RoverWalk::POINTS as $i => [$e, $n]) {
            $v = $rows[$i]['vertices'][0];
            $off = hypot($v['e'] - $e, $v['n'] - $n);
            self::assertLessThan(0.6, $off);
            self::assertGreaterThan(0.8, hypot($v['rawE'] - $e, $v['rawN'] - $n), 'By itself the rover was metres off.');
            $within += $off < 2.5 * $rows[$i]['sdPlan'] ? 1 : 0;
        }
        self::assertGreaterThanOrEqual(7, $within);
        self::assertCount(5, $rows[8]['vertices']);
        $geojson = json_decode($this->download("/baselines/features/{$this->file}/geojson"), true);
        self::assertCount(9, $geojson['features']);
        self::assertSame(
            ['code', 'sdPlan', 'sdUp', 'solution', 'positions', 'sdBefore', 'condition'],
            array_keys($geojson['features'][0]['properties']),
        );
    }

    /** The header is only about right: what it misses by goes into every feature, and is shown before. */
    public function testTheReferencesPositionGoesIntoEveryFeature(): void
    {
        $request = ['file' => $this->file, 'references' => [$this->reference]];
        $preview = $this->post('/baselines/features/preview', $request + ['position' => 'mark', 'mark' => 'KT01']);
        self::assertGreaterThan(2.0, sqrt(array_sum(array_map(static fn (float $v): float => $v * $v, $preview['less']))));
        self::assertEquals([0.0, 0.0, 0.0], $this->post('/baselines/features/preview', $request)['less']);
        $this->job('/baselines/features', $request + ['position' => 'mark', 'mark' => 'KT01']);
        $right = $this->get("/baselines/features/{$this->file}")['rows'][0]['vertices'][0];
        $this->job('/baselines/features', $request);
        $header = $this->get("/baselines/features/{$this->file}")['rows'][0]['vertices'][0];
        self::assertEqualsWithDelta($preview['less'][2], $right['h'] - $header['h'], 0.01);
        self::assertEqualsWithDelta(
            hypot($preview['less'][0], $preview['less'][1]), hypot($right['e'] - $header['e'], $right['n'] - $header['n']), 0.01,
        );
    }

    /** A rover with carriers beside a base at its own rate comes out to centimetres by the same actions. */
    public function testCarriersGiveCentimetres(): void
    {
        $truth = new TruthModel();
        $walk = (new RoverWalk($truth, true))->files();
        $i = $truth->index['KT05'];
        /** @var array{float, float, float} $place */
        $place = \array_slice($truth->state->position, 3 * $i, 3);
        $sky = new Sky(TruthModel::SEED, Sessions::WEEK, 43200.0, 'GE', 99);
        $base = $sky->observations(new Receiver('FAST', $place, 260, 1.0, types: Receiver::EVERYTHING, begin: 1195.0));
        $rover = strtr($walk[RoverWalk::RINEX], ['ROVER' => 'ROVE2']);
        $this->accept('fast.obs', (string) gzencode($base));
        $this->accept('rove2.obs', (string) gzencode($rover));
        $other = [RoverWalk::RINEX => 'rove2.obs', 'Drainage' => 'Walk 2'];
        $this->accept('walk2.geojson', strtr($walk['drainage-features.geojson'], $other));
        $file = $this->get('/baselines/features')['files'][1]['id'];
        $reference = array_column($this->get('/baselines')['occupations'], 'id', 'marker')['FAST'];
        $job = $this->job('/baselines/features', ['file' => $file, 'references' => [$reference]]);
        self::assertSame('done', $job['state'], (string) ($job['error'] ?? ''));
        $rows = $this->get("/baselines/features/$file")['rows'];
        foreach (RoverWalk::POINTS as $k => [$e, $n, $h]) {
            $v = $rows[$k]['vertices'][0];
            self::assertSame('fixed', $rows[$k]['solution']);
            self::assertLessThan(0.03, hypot($v['e'] - $e, $v['n'] - $n));
            self::assertEqualsWithDelta($h, $v['h'], 0.06);
            self::assertLessThan(0.05, $rows[$k]['sdPlan']);
        }
    }

    public function testWhatIsMissingIsSaid(): void
    {
        $request = ['file' => $this->file, 'references' => [$this->reference]];
        self::assertStringContainsString(
            'has no place',
            (string) json_encode($this->post('/baselines/features', $request + ['position' => 'mark', 'mark' => 'NOWHERE'], 422)),
        );
        self::assertStringContainsString(
            'easting', (string) json_encode($this->post('/baselines/features', $request + ['position' => 'typed'], 422)),
        );
        $bad = strtr((new RoverWalk(new TruthModel()))->files()['drainage-features.geojson'], ['gps:2031-05-04T12:20:11' => '12:20']);
        self::assertStringContainsString(
            'features[0].properties.positions[0].time', (string) json_encode($this->bring('bad.geojson', $bad)),
        );
    }
}
