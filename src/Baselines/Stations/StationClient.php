<?php

declare(strict_types=1);

namespace App\Baselines\Stations;

use Mensura\Fault\UnusableInput;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Contracts\HttpClient\Exception\ExceptionInterface;
use Symfony\Contracts\HttpClient\HttpClientInterface;

/** A reference-station service over HTTP (docs/formats.md, "Reference stations"). Its address is configuration, never what a page says. */
final class StationClient
{
    /** Bytes of one answer: an hour at one second with every signal, packed, is a fifth of it. */
    private const MOST = 100_000_000;
    private const SECONDS = 120.0;

    public function __construct(
        private readonly HttpClientInterface $client,
        #[Autowire('%env(STATION_SERVICE_URL)%')] private readonly string $address,
    ) {
    }

    public function isThere(): bool
    {
        return '' !== $this->address;
    }

    /**
     * @return array<mixed>
     *
     * @throws UnusableInput saying what the service said, or that it does not answer
     */
    public function stations(float $lat, float $lon, int $count): array
    {
        return $this->json('GET', '/stations', ['query' => ['lat' => $lat, 'lon' => $lon, 'count' => $count]]);
    }

    /**
     * @param array<string, string|int> $order
     *
     * @return array<mixed>
     */
    public function order(array $order): array
    {
        return $this->json('POST', '/orders', ['json' => $order]);
    }

    /** @return array<mixed> */
    public function state(string $order): array
    {
        return $this->json('GET', '/orders/'.rawurlencode($order), []);
    }

    public function file(string $order, string $name): string
    {
        return $this->body('GET', '/orders/'.rawurlencode($order).'/files/'.rawurlencode($name), []);
    }

    /** The report on a static file. */
    public function position(string $name, string $bytes): string
    {
        return $this->body('POST', '/positions', ['query' => ['name' => $name], 'body' => $bytes]);
    }

    /**
     * @param array<string, mixed> $options
     *
     * @return array<mixed>
     */
    private function json(string $method, string $path, array $options): array
    {
        $value = json_decode($this->body($method, $path, $options), true);

        return \is_array($value) ? $value : throw new UnusableInput(
            '', 'the reference-station service answered what is not understood; ask its operator',
        );
    }

    /** @param array<string, mixed> $options */
    private function body(string $method, string $path, array $options): string
    {
        if (!$this->isThere()) {
            throw new UnusableInput('', 'no reference-station service is set up; name its address in STATION_SERVICE_URL');
        }
        try {
            $response = $this->client->request($method, rtrim($this->address, '/').$path, $options + [
                'timeout' => 30.0, 'max_duration' => self::SECONDS, 'max_redirects' => 0, 'buffer' => true,
                'on_progress' => static function (int $now): void {
                    if ($now > self::MOST) {
                        throw new UnusableInput('', 'the reference-station service sends more than a file of observations can be');
                    }
                },
            ]);
            $body = $response->getContent(false);
            if ($response->getStatusCode() >= 400) {
                $said = json_decode($body, true);
                $why = \is_array($said) && \is_string($said['error'] ?? null) ? $said['error'] : 'it refused';
                throw new UnusableInput('', 'the reference-station service says: '.mb_substr(mb_scrub($why), 0, 300));
            }

            return $body;
        } catch (ExceptionInterface) {
            throw new UnusableInput('', 'the reference-station service does not answer; try again later, or bring the files in by hand');
        }
    }
}
