<?php

declare(strict_types=1);

namespace App\Tests\Baselines;

use App\Tests\ApiTestCase;
use Demo\Generator;
use Demo\Gnss\KerbWalk;
use Demo\Gnss\Sessions;
use Demo\TruthModel;

/** The Baselines stage through the interface's own requests, on the sessions of the demo project. */
final class BaselinesTest extends ApiTestCase
{
    /** @var ?array<string, string> */
    private static ?array $files = null;

    protected function setUp(): void
    {
        parent::setUp();
        self::$files ??= (new Sessions(new TruthModel()))->files();
    }

    public function testSessionsBecomeTrustedVectors(): void
    {
        $this->accept('control.csv', (new Generator(new TruthModel()))->files()['control-kestrel-tarn.csv']);
        foreach (['kestrel-tarn-124.31p', 'kt01-0900.31o', 'kt04-0910.31o', 'kt07-0925.31o', 'kt09-1050.31o'] as $name) {
            $typed = 'kt04-0910.31o' === $name ? strtr(
                self::$files[$name] ?? '', [str_pad('KT04', 60) => str_pad('kt-4', 60)],
            ) : self::$files[$name] ?? '';
            $this->accept($name, (string) gzencode($typed));
        }
        $view = $this->get('/baselines');
        self::assertSame(['KT01', 'kt-4', 'KT07', 'KT9'], array_column($view['occupations'], 'marker'));
        $asked = $view['occupations'][1];
        self::assertSame(['kt-4 is no mark of the project; is it KT04?', 'KT04'], [$asked['question'], $asked['suggested']]);
        $this->call('PUT', "/baselines/occupations/{$asked['id']}", [
            'marker' => $asked['suggested'], 'heightKind' => $asked['heightKind'], 'heightValue' => $asked['heightValue'],
        ], 200);
        $view = $this->get('/baselines');
        self::assertSame('', $view['occupations'][1]['question']);
        self::assertEqualsWithDelta(1.423, $view['occupations'][0]['vertical'], 1e-9);
        self::assertSame(
            [3, 4],
            [\count(array_filter($view['baselines'], static fn (array $b): bool => $b['independent'])), \count($view['baselines'])],
        );
        self::assertSame('124 09:10', $view['baselines'][0]['session']);
        $pairs = array_map(static fn (array $b): array => [$b['base'], $b['rover']], $view['baselines']);
        $job = $this->job('/baselines/process', ['pairs' => $pairs]);
        self::assertSame('done', $job['state'], (string) ($job['error'] ?? ''));
        $view = $this->get('/baselines');
        $truth = new TruthModel();
        foreach ($view['baselines'] as $b) {
            $run = $b['runs'][0];
            self::assertSame('fixed', $run['solution'], $b['fromName'].' '.$b['toName']);
            $from = $truth->index[$b['fromName']];
            $to = $truth->index['KT9' === $b['toName'] ? 'KT09' : $b['toName']];
            for ($c = 0; $c < 3; ++$c) {
                $true = $truth->state->position[3 * $to + $c] - $truth->state->position[3 * $from + $c];
                self::assertEqualsWithDelta($true, $run['vector'][$c], 0.012, $b['toName']);
            }
        }
        self::assertCount(1, $view['closures']);
        self::assertLessThan($view['closures'][0]['allowed'], $view['closures'][0]['size']);
        $document = $this->get("/baselines/runs/{$view['baselines'][0]['key']}");
        self::assertNotEmpty($document['residuals']);
        self::assertCount(\count($document['residuals'][0]['seconds']), $document['residuals'][0]['mm']);
        // Accepted, they are vectors of the network with their covariance; a changed antenna height makes all of it stale.
        $key = $view['baselines'][0]['key'];
        $this->post('/baselines/accept', ['baselines' => [$key]]);
        $network = $this->get('/network');
        $vectors = array_filter($network['rows'], static fn (array $r): bool => 'vector' === $r['kind']);
        self::assertCount(3, $vectors);
        $rover = array_column($view['occupations'], null, 'id')[$view['baselines'][0]['rover']];
        $this->call('PUT', "/baselines/occupations/{$rover['id']}", [
            'marker' => $rover['marker'], 'heightKind' => 'slant', 'heightValue' => 1.6, 'heightRadius' => 0.15,
        ], 200);
        $view = $this->get('/baselines');
        self::assertNotEmpty($view['baselines'][0]['stale']);
        self::assertEqualsWithDelta(sqrt(1.6 ** 2 - 0.15 ** 2), array_column($view['occupations'], 'vertical', 'id')[$rover['id']], 1e-9);
        $refused = $this->post('/baselines/accept', ['baselines' => [$key]], 422);
        self::assertStringContainsString('stale', (string) json_encode($refused));
    }

    /** A rover carried along a kerb: its file says that it moved, its stops are averaged and become points of the project. */
    public function testAStopAndGoRoverBecomesPoints(): void
    {
        $this->accept('control.csv', (new Generator(new TruthModel()))->files()['control-kestrel-tarn.csv']);
        $this->accept('kestrel-tarn-124.31p', self::$files['kestrel-tarn-124.31p'] ?? '');
        foreach ((new KerbWalk(new TruthModel()))->files() as $name => $text) {
            $this->accept($name, (string) gzencode($text));
        }
        $view = $this->get('/baselines');
        self::assertSame([false, true], array_column($view['occupations'], 'moves'));
        [$pair] = $view['baselines'];
        self::assertSame(['KT07', 'KERB'], [$pair['fromName'], $pair['toName']]);
        $unprocessed = $this->post("/baselines/stops/{$pair['key']}", ['prefix' => 'KERB-'], 422);
        self::assertStringContainsString('not processed yet', (string) json_encode($unprocessed));
        $this->job('/baselines/process', ['pairs' => [[$pair['base'], $pair['rover']]]]);
        $document = $this->get("/baselines/runs/{$pair['key']}");
        self::assertCount(\count(KerbWalk::JOINTS), $document['stops']);
        foreach (KerbWalk::JOINTS as $i => [$e, $n, $h]) {
            $s = $document['stops'][$i];
            self::assertSame('fixed', $s['solution']);
            // Centimetres for kinematic carriers are common practice; the stated sd has to cover what is off.
            self::assertLessThan(0.012, hypot($s['e'] - $e, $s['n'] - $n), "stop $i");
            self::assertLessThan(3.0 * $s['sdPlan'] + 0.001, hypot($s['e'] - $e, $s['n'] - $n), "stop $i");
            self::assertEqualsWithDelta($h, $s['h'], 0.020, "stop $i");
        }
        $this->post("/baselines/stops/{$pair['key']}", ['prefix' => 'KERB 1', 'code' => 'KERB'], 422);
        $this->post("/baselines/stops/{$pair['key']}", ['prefix' => 'KERB-', 'code' => 'KERB']);
        $points = array_column($this->get('/points')['points'], null, 'name');
        self::assertEqualsWithDelta($document['stops'][9]['n'], $points['KERB-10']['n'], 1e-4);
        self::assertSame(['KERB', 'surveyed'], [$points['KERB-10']['code'], $points['KERB-10']['role']]);
        $rover = $view['occupations'][1];
        $this->call('PUT', "/baselines/occupations/{$rover['id']}", [
            'marker' => 'KERB', 'heightKind' => 'vertical', 'heightValue' => 2.0,
        ], 200);
        $stale = $this->post("/baselines/stops/{$pair['key']}", ['prefix' => 'KERB-'], 422);
        self::assertStringContainsString('Process it again first', (string) json_encode($stale));
    }

    /** What is allowed for loops is the reader's own; it is no part of any result. */
    public function testLoopsAreMeasuredAgainstWhatIsAllowed(): void
    {
        $view = $this->get('/baselines');
        self::assertSame([0.010, 1.0], [$view['constant'], (float) $view['ppm']]);
        self::assertSame(0.004, $this->get('/baselines?constant=4&ppm=0.5')['constant']);
        $this->call('GET', '/baselines?constant=-1', null, 422);
    }

    /** The tripod on KT08 slid: float, found epoch by epoch, trimmed, fixed; and taken back. */
    public function testAReceiverThatLeftItsMark(): void
    {
        $this->accept('control.csv', (new Generator(new TruthModel()))->files()['control-kestrel-tarn.csv']);
        foreach (['kestrel-tarn-124.31p', 'kt01-0900.31o', 'kt08-1200.31o'] as $name) {
            $this->accept($name, (string) gzencode(self::$files[$name] ?? ''));
        }
        $view = $this->get('/baselines');
        [$pair] = $view['baselines'];
        $this->job('/baselines/process', ['pairs' => [[$pair['base'], $pair['rover']]]]);
        $this->job('/baselines/epochs', ['base' => $pair['base'], 'rover' => $pair['rover']]);
        [$pair] = $this->get('/baselines')['baselines'];
        self::assertSame('float', $pair['runs'][0]['solution']);
        self::assertCount(1, $pair['epochs']['moves']);
        self::assertEqualsWithDelta(21.3, hypot(...\array_slice($pair['epochs']['moves'][0]['shift'], 0, 2)), 3.0);
        self::assertEqualsWithDelta(2700.0, $pair['epochs']['moves'][0]['from'], 180.0);
        self::assertSame(0, $pair['epochs']['keep']);
        $scatter = $this->get("/baselines/scatter/{$pair['key']}");
        self::assertCount(212, $scatter['seconds']);
        $rover = array_column($view['occupations'], null, 'id')[$pair['rover']];
        $this->call('PUT', "/baselines/occupations/{$rover['id']}", [
            'marker' => $rover['marker'], 'heightKind' => 'vertical', 'heightValue' => $rover['heightValue'],
            'antenna' => $rover['antenna'],
            'trimTo' => $pair['epochs']['first'] + $pair['epochs']['stands'][0]['to'], 'reason' => 'left its mark',
        ], 200);
        $this->job('/baselines/process', ['pairs' => [[$pair['base'], $pair['rover']]]]);
        [$pair] = $this->get('/baselines')['baselines'];
        self::assertSame(['fixed', 'float'], array_column($pair['runs'], 'solution'));
        self::assertSame([], $pair['epochs']['stale'], 'The trim is what the epochs were looked at for.');
        $sky = $this->get("/baselines/occupations/{$rover['id']}/sky");
        self::assertGreaterThan(10, \count($sky['rows']));
        $this->undoLast();
        $this->undoLast();
        [$pair] = $this->get('/baselines')['baselines'];
        self::assertSame(['float'], array_column($pair['runs'], 'solution'));
        self::assertSame([], $pair['stale']);
    }
}
