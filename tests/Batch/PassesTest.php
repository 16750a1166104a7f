<?php

declare(strict_types=1);

namespace App\Tests\Batch;

use Demo\Street;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** The verb passes as a script would call it, sentence by sentence of its contract. */
final class PassesTest extends TestCase
{
    private const HEAD = 'time,e,n,h,roll,pitch,heading';

    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/mensura-passes-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        (new Process(['rm', '-r', $this->folder]))->mustRun();
    }

    public function testAPassIsLaidOntoAnotherAndWrittenAsANewVersion(): void
    {
        $street = new Street(60.0, true, 7);
        $first = $street->drive(1000.0, static fn (float $t): array => [0.0, 0.0, 0.0], 1_500);
        $second = $street->drive(2000.0, static fn (float $t): array => [0.2, -0.3, 0.1], 1_500);
        $this->write('p1.csv', Street::csv(self::HEAD, $first['trajectory']));
        $this->write('p2.csv', Street::csv(self::HEAD, $second['trajectory']));
        $this->write('p1.las', Street::las($first['points']));
        $this->write('p2-points.csv', Street::csv('time,e,n,h', $second['points']));
        $document = [
            'passes' => [
                ['id' => 'p1', 'trajectory' => 'p1.csv', 'points' => 'p1.las'],
                ['id' => 'p2', 'trajectory' => 'p2.csv', 'points' => 'p2-points.csv'],
            ],
            'settings' => ['every' => ['time' => 2.5]],
        ];
        mkdir($out = $this->folder.'/out');
        $older = ['p2.v2.csv' => 'older', 'p2.v7.csv.bak' => '', 'p21.v9.csv' => ''];
        foreach ($older as $name => $contents) {
            file_put_contents("$out/$name", $contents);
        }
        $before = $this->hashes();
        $result = $this->passes($document, '--out', $out);

        [$p1, $p2] = $result['passes'];
        self::assertSame(['none', null, [], null], [$p1['method'], $p1['toReference'], $p1['correction'], $p1['version']]);
        self::assertSame(['reference', 'corrected', null], [$p2['method'], $p2['toReference']['status'], $p2['toReference']['reason']]);
        self::assertSame([2000.0, 2002.5, 2005.0, 2007.5], array_column($p2['toReference']['stations'], 'time'));
        self::assertCount(4, $p2['correction']);
        foreach ($p2['toReference']['stations'] as $station) {
            self::assertEqualsWithDelta(['e' => -0.2, 'n' => 0.3, 'h' => -0.1], $station['shift'], 0.01);
            self::assertSame([true, null], [$station['used'], $station['reason']]);
        }
        self::assertSame(\count($second['points']), array_sum(array_column($p2['toReference']['stations'], 'points')));
        self::assertSame(['file' => "$out/p2.v3.csv", 'from' => 'p2.csv', 'method' => 'reference', 'number' => 3], $p2['version']);
        self::assertSame($before, array_intersect_key($this->hashes(), $before), 'what was there is as it was');
        $rows = array_map(str_getcsv(...), file("$out/p2.v3.csv", \FILE_IGNORE_NEW_LINES) ?: []);
        self::assertCount(1 + \count($second['trajectory']), $rows);
        $at = $second['trajectory'][30];
        $written = array_map(floatval(...), \array_slice($rows[31], 1, 3));
        self::assertEqualsWithDelta([$at[1] - 0.2, $at[2] + 0.3, $at[3] - 0.1], $written, 0.01);
        self::assertSame(4, $this->passes($document, '--out', $out)['passes'][1]['version']['number']);
        self::assertSame([], $result['warnings']);
        self::assertSame([null, null], [$result['control'], $result['check']]);
    }

    /** By hand. */
    public function testControlCorrectsByTimeAndCheckPointsStandApart(): void
    {
        $lines = ["\xEF\xBB\xBFn;h;time;e;note;q", '0.00000;2;10;0;"a;b";1', '# kept', '', '5.5;2.123456;11;1;c;2', '10;2;20;2e0;;3'];
        $this->write('p1.csv', implode("\r\n", $lines));
        $given = static fn (string $id, string $role, float $e): array => ['id' => $id, 'role' => $role, 'e' => $e, 'n' => 0, 'h' => 0];
        $seen = static fn (string $target, float $time, float $e): array => [
            'target' => $target, 'pass' => 'p1', 'time' => $time, 'e' => $e, 'n' => 0, 'h' => 0,
        ];
        $result = $this->passes([
            'passes' => [['id' => 'p1', 'trajectory' => 'p1.csv']],
            'control' => [$given('A', 'control', 1.0), $given('B', 'control', 5.0), $given('K', 'check', 3.0)],
            'sightings' => [$seen('B', 20, 4.6), $seen('A', 10, 0.8), $seen('K', 15, 2.5)],
        ], '--out', $this->folder.'/new/folder');

        $p1 = $result['passes'][0];
        self::assertSame('control', $p1['method']);
        $knot = static fn (float $time, float $e): array => ['time' => $time, 'e' => $e, 'n' => 0.0, 'h' => 0.0];
        self::assertEqualsWithDelta([$knot(10.0, 0.2), $knot(20.0, 0.4)], $p1['correction'], 1e-12);
        self::assertSame($p1['correction'], $p1['toControl']['knots']);
        self::assertEqualsWithDelta([0.4, 0.2, 0.5], array_column(array_column($result['sightings'], 'before'), 'e'), 1e-12);
        self::assertEqualsWithDelta([0.0, 0.0, 0.2], array_column(array_column($result['sightings'], 'after'), 'e'), 1e-12);
        self::assertEqualsWithDelta(0.2, $result['sightings'][0]['without']['e'], 1e-12);
        self::assertEqualsWithDelta(-0.2, $result['sightings'][1]['without']['e'], 1e-12);
        self::assertNull($result['sightings'][2]['without']);
        self::assertEqualsWithDelta(sqrt((0.16 + 0.04) / 2.0), $result['control']['before']['e'], 1e-12);
        self::assertEqualsWithDelta([0.5, 0.2], [$result['check']['before']['e'], $result['check']['after']['e']], 1e-12);
        $lines[1] = '0.00000;2.0000;10;0.2000;"a;b";1';
        [$lines[4], $lines[5]] = ['5.5000;2.123456;11;1.2200;c;2', '10.0000;2.0000;20;2.4000;;3'];
        self::assertSame(implode("\r\n", $lines), file_get_contents($this->folder.'/new/folder/p1.v1.csv'));
    }

    /**
     * @param array<string, mixed>  $change
     * @param array<string, string> $files
     */
    #[DataProvider('faults')]
    public function testBadInputIsRefusedByName(string $says, array $change, array $files = []): void
    {
        $this->write('t.csv', self::HEAD."\n1,0,0,0,0,0,0\n2,0,0,0,0,0,0\n");
        foreach ($files as $name => $contents) {
            $this->write($name, $contents);
        }
        $document = ['passes' => [['id' => 'p1', 'trajectory' => 't.csv']], 'reference' => 'p1'];
        $process = $this->call(array_replace_recursive($document, $change), '--out', $this->folder.'/o');

        self::assertSame(2, $process->getExitCode(), $process->getOutput());
        self::assertStringContainsString($says, $process->getErrorOutput());
        self::assertSame([], glob($this->folder.'/o/*') ?: []);
    }

    /** @return iterable<string, array{0: string, 1: array<string, mixed>, 2?: array<string, string>}> */
    public static function faults(): iterable
    {
        $points = static fn (string $file): array => ['passes' => [['points' => $file]]];
        yield 'a missing trajectory' => ['no.csv: cannot be read', ['passes' => [['trajectory' => 'no.csv']]]];
        yield 'missing points' => ['no.las: cannot be read', $points('no.las')];
        yield 'an unknown reference' => ['there is no pass "p9"', ['reference' => 'p9']];
        yield 'a pass twice' => ['is there twice', ['passes' => [1 => ['id' => 'p1', 'trajectory' => 't.csv']]]];
        $sighting = ['target' => 'T', 'pass' => 'p1', 'time' => 1, 'e' => 0, 'n' => 0, 'h' => 0];
        yield 'an unknown target' => ['there is no target "T"', ['sightings' => [$sighting]]];
        $control = [['id' => 'T', 'e' => 0, 'n' => 0, 'h' => 0]];
        yield 'an unknown pass' => ['there is no pass "q"', ['control' => $control, 'sightings' => [['pass' => 'q'] + $sighting]]];
        yield 'times that do not grow' => ['t.csv line 3: the time 1 is not after', [], ['t.csv' => "time,e,n,h\n1,0,0,0\n1,0,0,0\n"]];
        yield 'no number' => ['t.csv line 2: column e: "x" is not a number', [], ['t.csv' => "time,e,n,h\n1,x,0,0\n"]];
        yield 'NAN' => ['column heading: "NAN" is not a number', [], ['t.csv' => self::HEAD."\n1,0,0,0,0,0,NAN\n"]];
        yield 'no rows' => ['no rows', [], ['t.csv' => "time,e,n,h\n"]];
        yield 'points without time' => ['has no column "time"', $points('p.csv'), ['p.csv' => "e,n,h\n1,2,3\n"]];
        yield 'LAS without GPS time' => ['without GPS time', $points('p.las'), ['p.las' => self::las([[1.0, 0.0, 0.0, 0.0]], 0)]];
        yield 'LAS with times that nobody set' => ['without GPS time', $points('p.las'), ['p.las' => self::las([[0.0, 0.0, 0.0, 0.0]])]];
        yield 'every nothing' => ['settings.every.distance: is 0', ['settings' => ['every' => ['distance' => 0]]]];
        yield 'every two things' => ['one of them', ['settings' => ['every' => ['distance' => 1, 'time' => 1]]]];
        yield 'a radius below nothing' => ['settings.radius: is -1', ['settings' => ['radius' => -1]]];
        yield 'a pair of two' => ['same place picked in both', ['passes' => [['preShift' => ['from' => [0, 0], 'to' => [0, 0]]]]]];
        yield 'an id that is a path' => ['cannot be the name of a file', ['passes' => [['id' => '../x']], 'reference' => '../x']];
    }

    /**
     * LAS 1.2 after tables 3, 7 and 8 of the LAS specification 1.4 R15.
     *
     * @param list<list<float>> $points time, e, n, h
     */
    private static function las(array $points, int $format = 1): string
    {
        $size = 0 === $format ? 20 : 28;
        $head = 'LASF'.str_repeat("\0", 20)."\1\2".str_repeat("\0", 68).pack('vVVCvV', 227, 227, 0, $format, $size, \count($points));
        $head .= str_repeat("\0", 20).pack('e12', 1e-4, 1e-4, 1e-4, 40_000.0, 70_000.0, 0.0, 0, 0, 0, 0, 0, 0);
        foreach ($points as [$t, $e, $n, $h]) {
            $head .= pack('l3', round(($e - 40_000.0) * 1e4), round(($n - 70_000.0) * 1e4), round($h * 1e4)).str_repeat("\0", 8);
            $head .= 0 === $format ? '' : pack('e', $t);
        }

        return $head;
    }

    private function write(string $name, string $contents): void
    {
        file_put_contents("{$this->folder}/$name", $contents);
    }

    /** @return array<string, string> */
    private function hashes(): array
    {
        $hashes = [];
        foreach (glob($this->folder.'{/*.csv,/*.las,/out/*}', \GLOB_BRACE) ?: [] as $file) {
            $hashes[$file] = (string) hash_file('sha256', $file);
        }

        return $hashes;
    }

    /**
     * @param array<string, mixed> $document
     *
     * @return array<string, mixed>
     */
    private function passes(array $document, string ...$options): array
    {
        $process = $this->call($document, ...$options);
        self::assertSame(0, $process->getExitCode(), $process->getErrorOutput());

        return json_decode($process->getOutput(), true, 64, \JSON_THROW_ON_ERROR);
    }

    /** @param array<string, mixed> $document */
    private function call(array $document, string ...$options): Process
    {
        $this->write('passes.json', json_encode($document + ['format' => 'mensura-passes/1', 'reference' => 'p1'], \JSON_THROW_ON_ERROR));
        $process = new Process([\dirname(__DIR__, 2).'/bin/mensura', 'passes', $this->folder.'/passes.json', ...$options], timeout: 120);
        $process->run();

        return $process;
    }
}
