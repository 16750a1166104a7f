<?php

declare(strict_types=1);

namespace App\Tests\Baselines;

use App\Tests\ApiTestCase;
use Demo\Generator;
use Demo\Gnss\Sessions;
use Demo\Service\StationService;
use Demo\TruthModel;
use Mensura\Exchange\PositionReport\PositionReport;
use Mensura\Gnss\Horizon;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\HttpClient\MockHttpClient;
use Symfony\Component\HttpClient\Response\MockResponse;
use Symfony\Contracts\HttpClient\HttpClientInterface;

/** Reference stations and the positioning service, with the simulated service behind the client. */
final class StationsTest extends ApiTestCase
{
    private float $now = 1000.0;

    private string $before = '';

    protected function setUp(): void
    {
        $this->before = \is_string($_ENV['STATION_SERVICE_URL'] ?? null) ? $_ENV['STATION_SERVICE_URL'] : '';
        $_ENV['STATION_SERVICE_URL'] = $_SERVER['STATION_SERVICE_URL'] = 'http://stations.test';
        parent::setUp();
        self::getContainer()->set(HttpClientInterface::class, new MockHttpClient(function (
            string $method, string $url, array $options,
        ): MockResponse {
            $parts = parse_url($url);
            parse_str($parts['query'] ?? '', $all);
            $query = [];
            foreach ($all as $key => $value) {
                $query[(string) $key] = \is_string($value) ? $value : '';
            }
            $this->now += 1.5;
            $body = $options['body'] ?? '';
            [$status, $type, $text] = (new StationService($this->now))->answer(
                $method, $parts['path'] ?? '', $query, \is_string($body) ? $body : '',
            );

            return new MockResponse($text, ['http_code' => $status, 'response_headers' => ["Content-Type: $type"]]);
        }));
    }

    protected function tearDown(): void
    {
        $_ENV['STATION_SERVICE_URL'] = $_SERVER['STATION_SERVICE_URL'] = $this->before;
        parent::tearDown();
    }

    /** Ordered by the hour, taken in, processed: the station is a base like any other. */
    public function testAnOrderBecomesABase(): void
    {
        $this->accept('control.csv', (new Generator(new TruthModel()))->files()['control-kestrel-tarn.csv']);
        $this->accept('kt07-0925.31o', (string) gzencode((new Sessions(new TruthModel()))->files()['kt07-0925.31o']));
        $page = $this->get('/baselines/stations');
        self::assertSame('FELL', $page['stations'][0]['id']);
        self::assertEqualsWithDelta(5000.0, $page['stations'][0]['distance'], 1500.0);
        $job = $this->job('/baselines/stations/order', [
            'station' => 'FELL', 'from' => '2031-05-04T09:00:00Z', 'to' => '2031-05-04T11:00:00Z', 'interval' => 30, 'format' => 'rinex-2',
        ]);
        self::assertSame('done', $job['state'], (string) ($job['error'] ?? ''));
        self::assertCount(3, $job['outcome']['files']);
        $view = $this->get('/baselines');
        self::assertSame(['KT07', 'FELL', 'FELL'], array_column($view['occupations'], 'marker'));
        self::assertTrue($view['broadcast']);
        $pair = $view['baselines'][0];
        $this->job('/baselines/process', ['pairs' => [[$pair['base'], $pair['rover']]]]);
        self::assertSame('fixed', $this->get('/baselines')['baselines'][0]['runs'][0]['solution']);
    }

    /** @return iterable<string, array{array<string, mixed>, int, string}> */
    public static function wrongOrders(): iterable
    {
        $order = [
            'station' => 'FELL', 'from' => '2031-05-04T09:00:00Z', 'to' => '2031-05-04T10:00:00Z', 'interval' => 30, 'format' => 'rinex-3',
        ];
        yield 'half an hour' => [['from' => '2031-05-04T09:30:00Z'] + $order, 422, ''];
        yield 'backwards' => [['to' => '2031-05-04T08:00:00Z'] + $order, 202, 'whole hours'];
        yield 'unknown station' => [['station' => 'NONE'] + $order, 202, 'there is no station NONE'];
    }

    /** @param array<string, mixed> $order */
    #[DataProvider('wrongOrders')]
    public function testWhatTheServiceRefusesIsSaid(array $order, int $status, string $why): void
    {
        $answer = $this->post('/baselines/stations/order', $order, $status);
        if (202 === $status) {
            $job = $this->get('/jobs/'.$answer['job']);
            self::assertSame('failed', $job['state']);
            self::assertStringContainsString($why, $job['error']);
        }
    }

    public function testAStaticFileGetsAReport(): void
    {
        $this->accept('kt04-0910.31o', (string) gzencode((new Sessions(new TruthModel()))->files()['kt04-0910.31o']));
        $id = $this->get('/baselines')['occupations'][0]['id'];
        $report = PositionReport::read($this->post("/baselines/occupations/$id/position")['text'], 'report');
        $truth = new TruthModel();
        /** @var array{float, float, float} $place */
        $place = \array_slice($truth->state->position, 3 * $truth->index['KT04'], 3);
        self::assertLessThan(0.03, Horizon::distance($report->place, $place));
        self::assertLessThan(
            3.0 * sqrt(array_sum(array_map(static fn (float $s): float => $s * $s, $report->sd))),
            Horizon::distance($report->place, $place),
        );
        self::assertEqualsWithDelta(2031.34, $report->epoch, 0.005);
    }
}
