<?php

declare(strict_types=1);

namespace App\Tests\Batch;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** The verbs deviation and section as a script would call them. */
final class DeviationTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/mensura-deviation-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
        $this->write('measured.csv', "id,e,n,h\n\"A,1\",2,2,10.012\nB,2,3,9.995\nC,20,3,9.995\nD,3,3,11\n");
        $this->write('slab.csv', "id,e,n,h\n1,0,0,10\n2,9,0,10\n3,9,9,10\n4,0,9,10\n");
        $this->write('slab.xml', '<LandXML><Surfaces><Surface><Definition><Pnts><P id="1">0 0 10</P><P id="2">0 9 10</P>'
            .'<P id="3">9 9 10</P><P id="4">9 0 10</P></Pnts>'
            .'<Faces><F>1 2 3</F><F>1 3 4</F></Faces></Definition></Surface></Surfaces></LandXML>');
        $this->write('line.geojson', '{"type":"LineString","coordinates":[[-1,4.5],[10,4.5]]}');
    }

    protected function tearDown(): void
    {
        array_map('unlink', glob($this->folder.'/*') ?: []);
        rmdir($this->folder);
    }

    public function testASlabIsHeldAgainstItsDesign(): void
    {
        foreach (['slab.csv', 'slab.xml'] as $reference) {
            [$code, $out] = $this->mensura([
                'deviation', 'measured.csv', '--reference', $reference, '--along', 'normal', '--ignore', '0.5', '--bands', '-0.01,0.01',
                '--out', 'out.csv',
            ]);
            self::assertSame(0, $code);
            $result = json_decode($out, true, 16, \JSON_THROW_ON_ERROR);
            self::assertSame([4, 2, ['beyond' => 1, 'outside' => 1]], [$result['measured'], $result['used'], $result['ignored']]);
            self::assertEqualsWithDelta(0.0035, $result['mean'], 1e-12);
            self::assertSame([0, 1, 1], array_column($result['bands'], 'count'));
            self::assertSame('A,1', $result['worst'][0]['id']);
            $rows = array_map(
                static fn (string $l): array => str_getcsv($l, ',', '"', ''), file($this->folder.'/out.csv', \FILE_IGNORE_NEW_LINES) ?: [],
            );
            self::assertSame(['id', 'e', 'n', 'h', 'deviation'], $rows[0]);
            self::assertSame(['A,1', '0.012000000', '', '1.000000000'], [$rows[1][0], $rows[1][4], $rows[3][4], $rows[4][4]]);
        }
    }

    public function testStandardInputServesForAFile(): void
    {
        $points = "id,e,n,h\nA,1,1,10.5\n";
        [$code, $out] = $this->mensura(['deviation', '-', '--reference', 'slab.xml', '--along', 'vertical'], $points);
        self::assertSame([0, 0.5], [$code, json_decode($out, true)['mean']]);
        $xml = (string) file_get_contents($this->folder.'/slab.xml');
        [$code, $out] = $this->mensura(['deviation', 'measured.csv', '--reference', '-', '--along', 'vertical', '--ignore', '0.1'], $xml);
        self::assertSame([0, 2], [$code, json_decode($out, true)['used']]);
    }

    public function testNothingWithinTheLimitIsSaidWithTheDistance(): void
    {
        [$code, $out, $err] = $this->mensura(['deviation', 'measured.csv', '--reference', '1214', '--along', 'vertical', '--ignore', '1']);
        self::assertSame([0, null], [$code, json_decode($out, true)['mean']]);
        self::assertStringContainsString('the nearest is 1203.000 m away', $err);
    }

    public function testASectionWithPointsBesideIt(): void
    {
        [$code, $out] = $this->mensura([
            'section', '--line', 'line.geojson', '--surface', 'slab.xml', '--points', 'measured.csv', '--offset', '1.5',
        ]);
        self::assertSame(0, $code);
        $result = json_decode($out, true, 16, \JSON_THROW_ON_ERROR);
        self::assertSame([11.0, 'slab.xml'], [$result['length'], $result['surfaces'][0]['file']]);
        self::assertEqualsWithDelta([[1.0, 10.0], [5.5, 10.0], [10.0, 10.0]], $result['surfaces'][0]['pieces'][0], 1e-9);
        self::assertSame(['B', 'D'], array_column($result['points'], 'id'));
        self::assertSame([1.5, 1.5], array_column($result['points'], 'offset'), 'right is positive');
    }

    /** @return iterable<string, array{list<string>, string}> */
    public static function refusals(): iterable
    {
        $deviation = ['deviation', 'measured.csv', '--reference'];
        yield 'no direction' => [[...$deviation, 'slab.xml'], '--along'];
        yield 'bands out of order' => [[...$deviation, '10', '--along', 'normal', '--bands', '0,0'], '--bands'];
        yield 'a negative limit' => [[...$deviation, '10', '--along', 'normal', '--ignore', '-1'], '--ignore'];
        yield 'no reference' => [['deviation', 'measured.csv', '--along', 'normal'], '--reference'];
        yield 'a reference without faces' => [[...$deviation, 'line.geojson', '--along', 'normal'], 'line.geojson'];
        yield 'a missing file' => [[...$deviation, 'none.xml', '--along', 'normal'], 'none.xml'];
        yield 'an offset below zero' => [
            ['section', '--line', 'line.geojson', '--surface', 'slab.xml', '--points', 'measured.csv', '--offset', '-1'], '--offset',
        ];
        yield 'points without an offset' => [
            ['section', '--line', 'line.geojson', '--surface', 'slab.xml', '--points', 'slab.csv'], '--offset',
        ];
        yield 'no surface' => [['section', '--line', 'line.geojson'], '--surface'];
        yield 'no line' => [['section', '--line', 'slab.xml', '--surface', 'slab.xml'], 'slab.xml'];
    }

    /** @param list<string> $arguments */
    #[DataProvider('refusals')]
    public function testUnusableInputIsNamed(array $arguments, string $named): void
    {
        [$code, $out, $err] = $this->mensura($arguments);
        self::assertSame([2, ''], [$code, $out]);
        self::assertMatchesRegularExpression('/^mensura '.$arguments[0].': .*'.preg_quote($named, '/').'.+$/m', $err);
    }

    private function write(string $name, string $contents): void
    {
        file_put_contents($this->folder.'/'.$name, $contents);
    }

    /**
     * @param list<string> $arguments
     *
     * @return array{int, string, string}
     */
    private function mensura(array $arguments, string $stdin = ''): array
    {
        $process = new Process([\dirname(__DIR__, 2).'/bin/mensura', ...$arguments], $this->folder, null, $stdin);
        $process->run();

        return [(int) $process->getExitCode(), $process->getOutput(), $process->getErrorOutput()];
    }
}
