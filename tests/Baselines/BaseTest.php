<?php

declare(strict_types=1);

namespace App\Tests\Baselines;

use App\Tests\ApiTestCase;
use Demo\Generator;
use Demo\TruthModel;
use Mensura\Exchange\PositionReport\PositionReport;

/** A base with a wrong position, and with a wrong antenna height. */
final class BaseTest extends ApiTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->accept('rover-shots-drainage.csv', (new Generator(new TruthModel()))->roverShots());
    }

    public function testEveryShotMovesWithItsBase(): void
    {
        $page = $this->get('/baselines/base');
        self::assertSame(['BASE1'], $page['files'][0]['bases']);
        $request = $this->fromBase($page['files'][0]['id']);
        [$e, $n, $h] = TruthModel::MARKS['KT05'];
        $right = ['frame' => 'project', 'form' => 'grid', 'first' => $e, 'second' => $n, 'third' => $h, 'epoch' => 2031.34];
        $preview = $this->post('/baselines/base/preview', $request + $right);
        self::assertSame(37, $preview['count']);
        self::assertEqualsWithDelta(
            hypot(0.842, 0.613), hypot($preview['shift'][0], $preview['shift'][1]), 0.002, 'Grid and ground differ by the scale.',
        );
        self::assertEqualsWithDelta(-1.237, $preview['shift'][2], 0.001);
        $before = $this->point('D001');
        self::assertEqualsWithDelta($preview['rows'][1]['e'], $before['e'], 1e-9, 'Nothing moved yet.');
        $this->post('/baselines/base', $request + $right + ['reason' => 'autonomous start']);
        foreach (Generator::drainage() as $i => [$x, $y, $z]) {
            $p = $this->point(\sprintf('D%03d', $i + 1));
            self::assertLessThan(0.04, hypot($p['e'] - $x, $p['n'] - $y));
            self::assertEqualsWithDelta($z, $p['h'], 0.06);
        }
        self::assertStringContainsString('moved by 1.6', $this->get('/baselines/base')['files'][0]['corrected']);
        $undo = $this->get('')['undo'];
        $this->post("/ledger/$undo/undo");
        self::assertSame($before['e'], $this->point('D001')['e']);
        self::assertSame('', $this->get('/baselines/base')['files'][0]['corrected']);
    }

    /** The same place as latitude and longitude and as X, Y, Z of ETRS89 moves the same; a height above a geoid needs a geoid. */
    public function testTheRightPositionIsTakenInItsFrame(): void
    {
        $request = $this->fromBase($this->get('/baselines/base')['files'][0]['id']);
        $truth = new TruthModel();
        $i = $truth->index['KT05'];
        $xyz = \array_slice($truth->state->position, 3 * $i, 3);
        [$lat, $lon, $h] = \Mensura\Geodesy\Ellipsoid::grs80()->toGeodetic(...$xyz);
        foreach ([
            ['form' => 'geocentric', 'frame' => 'EPSG:4258', 'first' => $xyz[0], 'second' => $xyz[1], 'third' => $xyz[2]],
            ['form' => 'geographic', 'frame' => 'EPSG:4258', 'first' => rad2deg($lat), 'second' => rad2deg($lon), 'third' => $h],
        ] as $right) {
            $preview = $this->post('/baselines/base/preview', $request + $right);
            foreach (TruthModel::MARKS['KT05'] as $c => $value) {
                self::assertEqualsWithDelta($value, $preview['base'][$c], 0.0002, $right['form']);
            }
        }
        $refused = $this->post(
            '/baselines/base/preview',
            $request + ['form' => 'grid', 'first' => 1.0, 'second' => 2.0, 'third' => 3.0, 'heights' => 'geoid'], 422,
        );
        self::assertStringContainsString('no geoid', (string) json_encode($refused));
        $refused = $this->post(
            '/baselines/base/preview', $request + ['form' => 'grid', 'first' => 1.0, 'second' => null, 'third' => 3.0], 422,
        );
        self::assertStringContainsString('all three', (string) json_encode($refused));
    }

    /** The pole was read 0.120 m too low: marks and shots lie 0.120 m higher than they really do. */
    public function testAnAntennaHeightMovesHeightsOnly(): void
    {
        $request = ['what' => 'antenna'] + $this->fromBase($this->get('/baselines/base')['files'][0]['id']);
        $preview = $this->post('/baselines/base/preview', $request + ['antennaUsed' => 1.4, 'antennaRight' => 1.52]);
        foreach ($preview['rows'] as $r) {
            self::assertEqualsWithDelta($r['h'] - 0.12, $r['newH'], 1e-4);
            self::assertEqualsWithDelta(0.0, hypot($r['newE'] - $r['e'], $r['newN'] - $r['n']), 1e-4);
        }
    }

    public function testAReportIsRead(): void
    {
        $report = new PositionReport(
            'KT05', 'EPSG:4258', 2031.34, [3711000.0, -201000.0, 5164000.0], [0.004, 0.005, 0.011], 'static', 'kt05.31o',
        );
        self::assertEquals($report, PositionReport::read($report->write(), 'x'));
        self::assertEqualsWithDelta(2031.34, $this->post('/baselines/base/report', ['text' => $report->write()])['epoch'], 1e-9);
        $refused = $this->post('/baselines/base/report', ['text' => strtr($report->write(), ['X: 3711000.0000' => 'X: here'])], 422);
        self::assertStringContainsString('line 6', (string) json_encode($refused));
        $refused = $this->post('/baselines/base/report', ['text' => 'hello'], 422);
        self::assertStringContainsString('POSITION REPORT 1', (string) json_encode($refused));
    }

    /** @return array<string, mixed> */
    private function fromBase(int $file): array
    {
        $base = $this->point('BASE1');

        return ['files' => [$file], 'what' => 'position', 'usedE' => $base['e'], 'usedN' => $base['n'], 'usedH' => $base['h']];
    }

    /** @return array<mixed> */
    private function point(string $name): array
    {
        return array_column($this->get('/points')['points'], null, 'name')[$name];
    }
}
