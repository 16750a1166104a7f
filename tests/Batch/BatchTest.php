<?php

declare(strict_types=1);

namespace App\Tests\Batch;

use Mensura\Tests\Fixture;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** The batch verbs as programs: outputs, exit codes, one line of reason, nothing half-written. */
final class BatchTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/batch-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        (new Process(['rm', '-rf', $this->folder]))->run();
    }

    public function testAdjustKeepsTheContract(): void
    {
        $process = $this->run_('adjust', Fixture::path('network/plane-mixed.input.json'));
        self::assertSame(0, $process->getExitCode());
        $result = json_decode($process->getOutput(), true, 32, \JSON_THROW_ON_ERROR);
        self::assertSame([
            'format', 'converged', 'iterations', 'observationCount', 'parameterCount', 'redundancy', 'varianceFactor',
            'sigma0', 'globalTest', 'groups', 'stations', 'observations', 'aside', 'warnings',
        ], array_keys($result));
        self::assertSame(['statistic', 'lower', 'upper', 'passed', 'level'], array_keys($result['globalTest']));
        self::assertSame(['id', 'e', 'n', 'h', 'sd', 'covariance', 'ellipse'], array_keys($result['stations'][0]));
        self::assertSame([
            'index', 'type', 'observed', 'adjusted', 'residual', 'sd', 'standardized', 'redundancyNumber',
            'minimalDetectable', 'externalEffect', 'flagged', 'use',
        ], array_keys($result['observations'][0]));
        self::assertSame(['dx', 'dy', 'dz'], array_column(\array_slice($result['observations'], -3), 'component'));
        self::assertStringContainsString('statistics', $process->getErrorOutput(), 'Progress goes to standard error.');
    }

    public function testCrsAnswersCarryPositions(): void
    {
        $result = json_decode(
            $this->run_('adjust', Fixture::path('network/crs-mixed.input.json'))->getOutput(),
            true,
            32,
            \JSON_THROW_ON_ERROR,
        );
        self::assertEqualsWithDelta(54.4, $result['stations'][0]['lat'], 0.01);
        self::assertSame($result['stations'][0]['h'], $result['stations'][0]['ellipsoidalHeight']);
    }

    public function testSurfaceKeepsTheContract(): void
    {
        $lines = $this->file('lines.geojson', json_encode(['type' => 'FeatureCollection', 'features' => [[
            'type' => 'Feature',
            'properties' => ['role' => 'boundary'],
            'geometry' => ['type' => 'Polygon', 'coordinates' => [[[100, 100], [500, 100], [500, 400], [100, 400], [100, 100]]]],
        ]]], \JSON_THROW_ON_ERROR));
        $process = $this->run_(
            'surface', Fixture::path('surface/volcano.csv'), '--lines', $lines, '--contours', '10', '--contours-out',
            $this->folder.'/c.geojson', '--against', '120', '--out', $this->folder.'/s.xml',
        );
        self::assertSame(0, $process->getExitCode(), $process->getErrorOutput());
        $result = json_decode($process->getOutput(), true, 32, \JSON_THROW_ON_ERROR);
        self::assertSame(
            ['format', 'points', 'triangles', 'planArea', 'surfaceArea', 'hMin', 'hMax', 'volume', 'contours'],
            array_keys($result),
        );
        self::assertEqualsWithDelta(120000.0, $result['planArea'], 1e-3);
        self::assertEqualsWithDelta($result['volume']['cut'] - $result['volume']['fill'], $result['volume']['net'], 1e-6);
        self::assertFileExists($this->folder.'/c.geojson');
        // The surface written is the surface read: against itself nothing is left.
        $self = json_decode($this->run_(
            'surface', Fixture::path('surface/volcano.csv'), '--lines', $lines, '--against', $this->folder.'/s.xml',
        )->getOutput(), true, 32, \JSON_THROW_ON_ERROR);
        self::assertEqualsWithDelta(0.0, $self['volume']['cut'] + $self['volume']['fill'], 0.01);
        self::assertEqualsWithDelta(120000.0, $self['volume']['planArea'], 1e-2);
        $xml = simplexml_load_file($this->folder.'/s.xml', \SimpleXMLElement::class, \LIBXML_NONET);
        self::assertNotFalse($xml);
        self::assertSame('http://www.landxml.org/schema/LandXML-1.2', $xml->getNamespaces()[''] ?? '');
    }

    public function testUnusableInputExitsWithTwoAndOneLine(): void
    {
        $cases = [
            [['adjust', $this->folder.'/none.json'], '/none\.json.*cannot be read/'],
            [['adjust', $this->file('cut.json', '{"format": "mensura-network/1", "stat')], '/cut\.json: not JSON/'],
            [['adjust', $this->file('empty.json', '')], '/empty\.json: not JSON/'],
            [['adjust', $this->file('other.json', '{"format": "x"}')], '/other\.json format: must be "mensura-network\/1"/'],
            [['adjust'], '/give one network file/'],
            [['adjust', Fixture::path('network/levelling.input.json'), '--screen', 'x'], '/--screen: "x" is not a positive number/'],
            [['surface', $this->file('p.csv', "id,e,n,h\na,1,2,3\nb,1,x,3\n")], '/p\.csv line 3: column n: "x" is not a number/'],
            [['surface', $this->file('q.csv', "id,e,n\na,1,2\n")], '/q\.csv line 1: has no column "h"/'],
            [['surface', $this->file('r.csv', "id,e,n,h\na,1,1,1\nb,2,2,1\nc,3,3,1\n")], '/all points lie on one line/'],
            [['surface', $this->file('s.csv', "id,e,n,h\na,1,1,1\nb,2,2\n")], '/s\.csv line 3: has 3 columns, 4 are needed/'],
            [['surface', $this->file('none.csv', "id,e,n,h\n")], '/none\.csv: a surface needs at least three points, there are 0/'],
            [
                ['surface', Fixture::path('surface/volcano.csv'), '--lines', $this->file('far.geojson', self::ring('boundary', 9000.0))],
                '/far\.geojson features\[0\]: leaves nothing of the surface/',
            ],
            [
                ['surface', Fixture::path('surface/volcano.csv'), '--lines', $this->file('all.geojson', self::ring('void', -10.0))],
                '/all\.geojson features\[0\]: leaves nothing of the surface/',
            ],
            [
                ['surface', Fixture::path('surface/volcano.csv'), '--max-edge', '0.5'],
                '/volcano\.csv: no triangle is left: every one has an edge longer than 0\.5 m/',
            ],
            [['adjust', $this->folder], '/cannot be read/'],
            [['surface', Fixture::path('surface/volcano.csv'), '--contours', '0'], '/--contours: "0" is not a positive number/'],
            [['surface', Fixture::path('surface/volcano.csv'), '--out', '/no/such/folder/s.xml'], '/cannot be written/'],
            [['frobnicate'], '/there is no verb "frobnicate"/'],
        ];
        foreach ($cases as [$arguments, $reason]) {
            $process = $this->run_(...$arguments);
            self::assertSame(2, $process->getExitCode(), implode(' ', $arguments).$process->getErrorOutput());
            self::assertSame('', $process->getOutput());
            $lines = array_filter(
                explode("\n", $process->getErrorOutput()),
                static fn (string $l): bool => '' !== $l && !str_contains($l, ' % '),
            );
            self::assertCount(1, $lines, $process->getErrorOutput());
            self::assertMatchesRegularExpression($reason, (string) reset($lines));
        }
    }

    public function testAVoidThatLiesElsewhereIsNamedAndChangesNothing(): void
    {
        $process = $this->run_(
            'surface', Fixture::path('surface/volcano.csv'), '--lines',
            $this->file('far.geojson', self::ring('void', 9000.0)),
        );
        self::assertSame(0, $process->getExitCode());
        self::assertMatchesRegularExpression(
            '/^warning: .*far\.geojson features\[0\] lies wholly outside the surface/m',
            $process->getErrorOutput(),
        );
        self::assertSame(516000.0, json_decode($process->getOutput(), true, 8, \JSON_THROW_ON_ERROR)['planArea']);
    }

    public function testStandardInputIsRead(): void
    {
        foreach (['adjust' => 'network/levelling.input.json', 'surface' => 'surface/volcano.csv'] as $verb => $fixture) {
            $process = new Process([\dirname(__DIR__, 2).'/bin/mensura', $verb, '-']);
            $process->setInput((string) file_get_contents(Fixture::path($fixture)));
            $process->run();
            self::assertSame($this->run_($verb, Fixture::path($fixture))->getOutput(), $process->getOutput());
        }
    }

    /** A square of 2 km from a corner. */
    private static function ring(string $role, float $from): string
    {
        $to = $from + 2000.0;

        return json_encode(['type' => 'FeatureCollection', 'features' => [[
            'type' => 'Feature',
            'properties' => ['role' => $role],
            'geometry' => [
                'type' => 'Polygon',
                'coordinates' => [[[$from, $from], [$to, $from], [$to, $to], [$from, $to], [$from, $from]]],
            ],
        ]]], \JSON_THROW_ON_ERROR);
    }

    public function testSuspectsKeepTheContract(): void
    {
        $network = Fixture::json('network/plane-mixed.input.json');
        foreach ($network['observations'] as $i => $o) {
            if ('slope-distance' === $o['type']) {
                $network['observations'][$i]['value'] += 0.3;
                break;
            }
        }
        $file = $this->file('blunder.json', json_encode($network, \JSON_THROW_ON_ERROR));
        foreach ([[$file, '--suspects'], ['--suspects', $file], [$file, '--suspects', '10']] as $arguments) {
            $result = json_decode($this->run_('adjust', ...$arguments)->getOutput(), true, 32, \JSON_THROW_ON_ERROR);
            self::assertCount(10, $result['suspects']);
            $first = $result['suspects'][0];
            self::assertContains($first['cause'], ['distance', 'digits']);
            self::assertEqualsWithDelta(-0.3, $first['estimate'], 0.03);
        }
        self::assertCount(
            3,
            json_decode($this->run_('adjust', $file, '--suspects', '3')->getOutput(), true, 32, \JSON_THROW_ON_ERROR)['suspects'],
        );
        foreach ([['--suspects', '0'], ['--suspects', '-2'], ['--suspects', '--preanalysis']] as $arguments) {
            self::assertSame(2, $this->run_('adjust', $file, ...$arguments)->getExitCode());
        }
    }

    public function testHelpAgreesWithTheVerbs(): void
    {
        foreach ([
            'adjust' => ['--free', '--screen', '--preanalysis', '--suspects'], 'reduce' => ['BOOK.json'], 'traverse' => ['T.json'],
            'level' => ['BOOK.json'],
            'surface' => ['--lines', '--max-edge', '--contours', '--contours-out', '--against', '--out', '--crossing'],
        ] as $verb => $options) {
            $help = $this->run_('help', $verb)->getOutput();
            foreach ($options as $option) {
                self::assertStringContainsString($option, $help);
            }
        }
    }

    private function file(string $name, string $contents): string
    {
        file_put_contents($this->folder.'/'.$name, $contents);

        return $this->folder.'/'.$name;
    }

    private function run_(string ...$arguments): Process
    {
        $process = new Process([\dirname(__DIR__, 2).'/bin/mensura', ...$arguments]);
        $process->run();

        return $process;
    }
}
