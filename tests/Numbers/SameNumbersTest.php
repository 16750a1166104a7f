<?php

declare(strict_types=1);

namespace App\Tests\Numbers;

use Mensura\Tests\Fixture;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/**
 * The same numbers, byte for byte, whatever compiles the code: without a JIT, with the function JIT, and where PHP was
 * told to use the tracing JIT, which computes other ones and is put aside by config/jit.php.
 */
final class SameNumbersTest extends TestCase
{
    private const ROOT = __DIR__.'/../..';

    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/numbers-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        (new Process(['rm', '-rf', $this->folder]))->run();
    }

    #[DataProvider('programs')]
    public function testAnswersDoNotDependOnTheJit(string $script, int $answers): void
    {
        $wanted = self::wanted($script);
        $processes = [];
        foreach (array_keys($wanted) as $jit) {
            $work = "{$this->folder}/$jit";
            mkdir($work);
            // What the test run read from .env is not handed on: the process has a database of its own.
            $environment = [
                'MENSURA_JIT' => false, 'SYMFONY_DOTENV_VARS' => false,
                'DATABASE_URL' => "sqlite:///$work/mensura.db", 'STORE_DIR' => "$work/store",
            ];
            $processes[$jit] = new Process([
                \PHP_BINARY, '-d', 'memory_limit=4G', '-d', 'opcache.enable=1', '-d', 'opcache.enable_cli=1', '-d',
                "opcache.jit=$jit", '-d', 'opcache.jit_buffer_size=128M', __DIR__.'/'.$script, $work,
            ], null, $environment, null, 600);
            $processes[$jit]->start();
        }
        // All are asked in turn: a pipe that nobody empties would hold its process up.
        while ([] !== array_filter($processes, static fn (Process $p): bool => $p->isRunning())) {
            usleep(20_000);
        }
        $output = [];
        foreach ($processes as $jit => $process) {
            self::assertSame(0, $process->getExitCode(), $jit.' '.substr($process->getOutput().$process->getErrorOutput(), -2000));
            [$state, $output[$jit]] = explode("\n", str_replace("{$this->folder}/$jit", 'WORK', $process->getOutput()), 2);
            self::assertSame($wanted[$jit], $state);
        }
        $off = $output['off'] ?? '';
        self::assertGreaterThanOrEqual($answers, preg_match_all('/^== .* -> (0|20\d)$/m', $off));
        foreach ($output as $jit => $answer) {
            self::assertSame('', self::firstDifference($off, $answer), $jit);
        }
    }

    /**
     * That the tracing JIT is put aside shows with the verbs; the application goes the same way, and takes long.
     *
     * @return array<string, string> what a process says of its JIT, by what it is told
     */
    private static function wanted(string $script): array
    {
        return ['off' => 'jit off', 'function' => 'jit on'] + ('verbs.php' === $script ? ['tracing' => 'jit on'] : []);
    }

    /** @return iterable<string, array{string, int}> */
    public static function programs(): iterable
    {
        yield 'every fixture input of every verb' => ['verbs.php', 280];
        yield 'a photo flight' => ['flight.php', 6];
        yield 'the application' => ['application.php', 24];
    }

    public function testTheEnvironmentChoosesForEveryVerb(): void
    {
        foreach ([
            ['adjust', Fixture::path('network/crs-vectors.input.json')],
            ['surface', Fixture::path('surface/volcano.csv'), '--contours', '5', '--against', '110'],
        ] as $arguments) {
            $answers = array_map(
                fn (string|false $jit): string => $this->mensura($jit, $arguments)->mustRun()->getOutput(),
                ['off', 'function', false],
            );
            self::assertSame([$answers[0], $answers[0], $answers[0]], $answers);
        }
        $refused = $this->mensura('tracing', ['help']);
        $refused->run();
        self::assertSame(2, $refused->getExitCode());
        self::assertSame("mensura: MENSURA_JIT is \"tracing\"; it can be off or function\n", $refused->getErrorOutput());
    }

    /** What bin/mensura hands to PHP, seen from inside a process it starts. */
    public function testTheEnvironmentReachesPhp(): void
    {
        $print = "{$this->folder}/print.php";
        file_put_contents($print, '<?php $s = opcache_get_status(false); echo $s && $s["jit"]["on"] ? "on" : "off";');
        // Bash reads the script up to its verbs, then runs ours with the options it has put together.
        $script = (string) preg_replace(
            ['/^root=.*$/m', '/^verb=\$\{1:-help\}.*/ms'], ['root=.', 'php "${jit[@]}" "$@"'],
            (string) file_get_contents(self::ROOT.'/bin/mensura'),
        );
        foreach (['off' => 'off', 'function' => 'on'] as $jit => $state) {
            $process = new Process(['bash', '-c', $script, 'mensura', $print], null, ['MENSURA_JIT' => $jit]);
            self::assertSame($state, $process->mustRun()->getOutput());
        }
    }

    /** @param list<string> $arguments */
    private function mensura(string|false $jit, array $arguments): Process
    {
        return new Process([self::ROOT.'/bin/mensura', ...$arguments], null, ['MENSURA_JIT' => $jit]);
    }

    private static function firstDifference(string $one, string $other): string
    {
        if ($one === $other) {
            return '';
        }
        $at = strspn($one ^ $other, "\0");
        $heading = substr($one, (int) strrpos(substr($one, 0, $at), '== '), 90);

        return \sprintf(
            'at byte %d, after %s: %s | %s', $at, strtok($heading, "\n"), substr($one, max(0, $at - 20), 60),
            substr($other, max(0, $at - 20), 60),
        );
    }
}
