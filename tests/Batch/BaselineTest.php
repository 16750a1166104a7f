<?php

declare(strict_types=1);

namespace App\Tests\Batch;

use Demo\Gnss\Receiver;
use Demo\Gnss\Sky;
use Mensura\Gnss\Horizon;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** The verb baseline as a program, on files of an invented constellation. */
final class BaselineTest extends TestCase
{
    private const BASE = [3901600.0, 300100.0, 5020020.0];

    private static string $folder;

    public static function setUpBeforeClass(): void
    {
        self::$folder = sys_get_temp_dir().'/baseline-'.bin2hex(random_bytes(4));
        mkdir(self::$folder);
        $sky = new Sky(21);
        $rover = Horizon::of(self::BASE)->shifted(self::BASE, 400.0, -300.0, 12.0);
        $base = $sky->observations(new Receiver('BASE', self::BASE, 61, 20.0, 1e-5));
        foreach ([
            'base.rnx' => $base, 'rover.rnx' => $sky->observations(
                new Receiver('ROV1', $rover, 61, 20.0, -2e-4),
            ), 'nav.rnx' => $sky->navigation(),
            'orbits.sp3' => $sky->precise(),
            'high.rnx' => strtr($base, [\sprintf('%14.4F%14.4F%14.4F', 0, 0, 0) => \sprintf('%14.4F%14.4F%14.4F', 1.5, 0, 0)]),
        ] as $name => $contents) {
            file_put_contents(self::$folder."/$name", $contents);
        }
    }

    public static function tearDownAfterClass(): void
    {
        (new Process(['rm', '-rf', self::$folder]))->run();
    }

    public function testTheDocumentKeepsTheContract(): void
    {
        $result = $this->answer();
        self::assertSame([
            'format', 'solution', 'mode', 'from', 'to', 'vector', 'covariance', 'ratio', 'rms', 'epochs', 'start', 'end', 'satellites',
            'horizontalPrecision', 'verticalPrecision',
        ], array_keys($result));
        self::assertSame(['fixed', 'static', 'BASE', 'ROV1', 61], [
            $result['solution'], $result['mode'], $result['from']['marker'], $result['to']['marker'], $result['epochs'],
        ]);
        $rover = Horizon::of(self::BASE)->shifted(self::BASE, 400.0, -300.0, 12.0);
        foreach (['dx', 'dy', 'dz'] as $i => $key) {
            self::assertEqualsWithDelta($rover[$i] - self::BASE[$i], $result['vector'][$key], 0.012);
        }
        self::assertSame(['id', 'epochs', 'slips', 'used'], array_keys($result['satellites'][0]));
        self::assertSame('gps:2030-12-31T09:45:00.000', $result['start']);
    }

    /** The antenna stands 1.5 m above the marker of the base: the marker is that much lower, the vector as much longer upwards. */
    public function testAntennaHeightsAreApplied(): void
    {
        $low = $this->answer();
        $high = $this->answer('--base', 'high.rnx');
        $up = Horizon::of(self::BASE)->axes;
        $rise = 0.0;
        foreach (['dx', 'dy', 'dz'] as $i => $key) {
            $rise += $up[6 + $i] * ($high['vector'][$key] - $low['vector'][$key]);
        }
        // Both start from the same marker; the antenna of the second is taken for 1.5 m higher, and so is the rover.
        self::assertEqualsWithDelta(1.5, $rise, 0.002);
        self::assertSame($low['from'], $high['from']);
    }

    public function testTimesAndModes(): void
    {
        $part = $this->answer('--start', 'gps:2030-12-31T09:50:00', '--end', '2030-12-31T09:59:42Z');
        self::assertSame(
            ['gps:2030-12-31T09:50:00.000', 'gps:2030-12-31T10:00:00.000', 31],
            [$part['start'], $part['end'], $part['epochs']],
        );
        $code = $this->answer('--mode', 'code');
        self::assertSame(['code', 61], [$code['solution'], \count($code['track'])]);
        self::assertSame(['time', 'x', 'y', 'z', 'solution', 'satellites', 'sd'], array_keys($code['track'][0]));
        self::assertSame(['e', 'n', 'u'], array_keys($code['track'][0]['sd']));
        $track = $this->answer('--mode', 'kinematic', '--sp3', 'orbits.sp3');
        self::assertSame(['fixed', 61], [$track['solution'], \count(array_keys(array_column($track['track'], 'solution'), 'fixed', true))]);
        $static = $this->answer('--sp3', 'orbits.sp3');
        self::assertSame('fixed', $static['solution']);
        self::assertEqualsWithDelta($this->answer()['vector']['dz'], $static['vector']['dz'], 0.001);
    }

    public function testRefusals(): void
    {
        foreach ([
            [['--mode', 'guess'], '/--mode/'], [['--mask', '95'], '/elevation from 0 to 90/'], [['--start', 'noon'], '/"noon" is no time/'],
            [['--start', '2030-12-31T09:50:00'], '/is no time/'], [['--base-position', '1,2'], '/is not X,Y,Z/'],
            [['--base-position', '3900000,300000,-5018000'], '/km from where its codes place it/'],
            [['--start', 'gps:2031-12-31T09:50:00'], '/no epochs in common within the time asked for/'],
            [['--base', 'nav.rnx'], '/nav.rnx line 1: is a RINEX file of type N/'], [['--rover', 'none.rnx'], '/none.rnx/'],
        ] as [$arguments, $why]) {
            $process = $this->program(...$arguments);
            self::assertSame(2, $process->getExitCode(), implode(' ', $arguments).$process->getErrorOutput());
            self::assertSame('', $process->getOutput());
            self::assertMatchesRegularExpression($why, $process->getErrorOutput());
        }
    }

    /** @return array<string, mixed> */
    private function answer(string ...$arguments): array
    {
        $process = $this->program(...$arguments);
        self::assertSame(0, $process->getExitCode(), $process->getErrorOutput());

        return json_decode($process->getOutput(), true, 32, \JSON_THROW_ON_ERROR);
    }

    private function program(string ...$arguments): Process
    {
        $given = ['--base' => 'base.rnx', '--rover' => 'rover.rnx', '--nav' => 'nav.rnx'];
        for ($k = 0; $k < \count($arguments); $k += 2) {
            $given[$arguments[$k]] = $arguments[$k + 1];
        }
        $command = [\dirname(__DIR__, 2).'/bin/mensura', 'baseline'];
        foreach ($given as $option => $value) {
            array_push($command, $option, $value);
        }
        $process = new Process($command, self::$folder);
        $process->run();

        return $process;
    }
}
