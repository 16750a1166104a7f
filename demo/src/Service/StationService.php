<?php

declare(strict_types=1);

namespace Demo\Service;

use Demo\Gnss\Receiver;
use Demo\Gnss\Sessions;
use Demo\Gnss\Sky;
use Demo\TruthModel;
use Mensura\Exchange\PositionReport\PositionReport;
use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\ObservationWriter;
use Mensura\Exchange\Rinex\Packed;
use Mensura\Exchange\Rinex\SessionOf;
use Mensura\Fault\UnusableInput;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Gnss\BaselineProcessor;
use Mensura\Gnss\GpsTime;
use Mensura\Gnss\Horizon;
use Mensura\Gnss\Options;
use Mensura\Gnss\Orbits;

/**
 * A network of reference stations and a positioning service that do not exist: what they record is of the invented sky of the
 * demo. An order says what it asks for in its own name, so the service keeps nothing. docs/formats.md describes the requests.
 */
final class StationService
{
    /** Invented stations: degrees, metres. */
    public const STATIONS = [
        'FELL' => [54.4471, -3.0732, 331.2], 'MERE' => [54.3318, -3.1904, 92.7], 'HOWE' => [54.5205, -3.2893, 418.4],
        'SAND' => [54.1127, -3.0211, 58.9], 'PIKE' => [54.8092, -2.7344, 271.0],
    ];

    private const INTERVALS = [1, 5, 10, 15, 30];
    private const FORMATS = ['rinex-3', 'rinex-2'];
    private const MOST_HOURS = 24;

    /** Seconds an order takes to be ready. */
    private const PREPARING = 2.0;

    /** Every file of observations comes with ephemerides every two hours. */
    private const EPHEMERIDES = 7200.0;

    public function __construct(private readonly float $now)
    {
    }

    /**
     * @param array<string, string> $query
     *
     * @return array{int, string, string} status, type, body
     */
    public function answer(string $method, string $path, array $query, string $body): array
    {
        try {
            return match (true) {
                'GET' === $method && '/stations' === $path => self::json($this->stations($query)),
                'POST' === $method && '/orders' === $path => self::json($this->order(self::decoded($body)), 201),
                'GET' === $method && 1 === preg_match('#^/orders/([A-Za-z0-9_-]+)$#', $path, $m) => self::json($this->state($m[1])),
                'GET' === $method && 1 === preg_match('#^/orders/([A-Za-z0-9_-]+)/files/([A-Za-z0-9._-]+)$#', $path, $m) => [
                    200, 'application/gzip', (string) gzencode($this->file($m[1], $m[2])),
                ],
                'POST' === $method && '/positions' === $path => [
                    200, 'text/plain; charset=utf-8', $this->position($body, $query['name'] ?? 'file'),
                ],
                default => self::json(['error' => 'there is nothing at this address'], 404),
            };
        } catch (UnusableInput $e) {
            return self::json(['error' => $e->getMessage()], 422);
        }
    }

    /**
     * @param array<string, string> $query
     *
     * @return array<string, mixed>
     */
    private function stations(array $query): array
    {
        $lat = (float) ($query['lat'] ?? 0.0);
        $lon = (float) ($query['lon'] ?? 0.0);
        $list = [];
        foreach (self::STATIONS as $id => [$a, $b, $h]) {
            [$x, $y, $z] = self::place($id);
            $list[] = [
                'id' => $id, 'lat' => $a, 'lon' => $b, 'h' => $h, 'x' => $x, 'y' => $y, 'z' => $z, 'frame' => 'EPSG:4258',
                'distance' => Horizon::distance([$x, $y, $z], Ellipsoid::grs80()->toCartesian(deg2rad($lat), deg2rad($lon), $h)),
                'systems' => ['G', 'E'], 'intervals' => self::INTERVALS, 'formats' => self::FORMATS,
            ];
        }
        usort($list, static fn (array $p, array $q): int => $p['distance'] <=> $q['distance']);

        return ['service' => 'Simulated stations', 'stations' => \array_slice($list, 0, max(1, (int) ($query['count'] ?? 10)))];
    }

    /**
     * @param array<mixed> $order
     *
     * @return array<string, mixed>
     */
    private function order(array $order): array
    {
        $station = \is_string($order['station'] ?? null) ? $order['station'] : '';
        $interval = \is_int($order['interval'] ?? null) ? $order['interval'] : 0;
        $format = \is_string($order['format'] ?? null) ? $order['format'] : '';
        if (!isset(self::STATIONS[$station])) {
            throw new UnusableInput('station', "there is no station $station");
        }
        if (!\in_array($interval, self::INTERVALS, true)) {
            throw new UnusableInput('interval', 'the interval is 1, 5, 10, 15 or 30 seconds');
        }
        if (!\in_array($format, self::FORMATS, true)) {
            throw new UnusableInput('format', 'the format is rinex-3 or rinex-2');
        }
        $from = self::instant($order['from'] ?? null, 'from');
        $to = self::instant($order['to'] ?? null, 'to');
        if (0 !== $from % 3600 || 0 !== $to % 3600 || $to <= $from || $to - $from > 3600 * self::MOST_HOURS) {
            throw new UnusableInput('from', \sprintf('from and to are whole hours of UTC, %d of them at most', self::MOST_HOURS));
        }
        $id = strtr(base64_encode(json_encode([$station, $from, $to, $interval, $format, $this->now], \JSON_THROW_ON_ERROR)), '+/=', '-_.');

        return ['order' => rtrim($id, '.')] + $this->state(rtrim($id, '.'));
    }

    /** @return array<string, mixed> */
    private function state(string $id): array
    {
        [$station, $from, $to, , , $at] = self::understood($id);
        $share = min(1.0, ($this->now - $at) / self::PREPARING);
        $files = [];
        for ($hour = $from; $share >= 1.0 && $hour < $to; $hour += 3600) {
            $files[] = strtolower($station).gmdate('-Ymd-H', $hour).'00.obs';
        }

        return [
            'state' => $share >= 1.0 ? 'ready' : 'preparing', 'progress' => round($share, 2),
            'files' => [] === $files ? [] : [...$files, strtolower($station).gmdate('-Ymd', $from).'.nav'],
        ];
    }

    private function file(string $id, string $name): string
    {
        [$station, $from, $to, $interval, $format] = self::understood($id);
        if (str_ends_with($name, '.nav')) {
            return self::sky($from, 1)->navigation(self::toes($from, $to));
        }
        for ($hour = $from; $hour < $to; $hour += 3600) {
            if ($name === strtolower($station).gmdate('-Ymd-H', $hour).'00.obs') {
                $text = $this->recorded($station, $hour, 3600, (float) $interval);
                if ('rinex-3' === $format) {
                    return $text;
                }

                return (new ObservationWriter())->write(ObservationReader::read($text, $name), '2.11');
            }
        }
        throw new UnusableInput($name, 'is not among the files of this order');
    }

    /** What a station recorded from an instant of UTC on; its tags are of GPS time. */
    private function recorded(string $station, int $from, int $seconds, float $interval): string
    {
        $sky = self::sky($from, crc32("$station $from"));
        $gps = $from - (int) gmmktime(0, 0, 0, 1, 6, 1980) + 18;
        $first = ceil($gps / $interval) * $interval;

        return $sky->observations(new Receiver(
            $station, self::place($station), (int) floor(
                ($gps + $seconds - 1 - $first) / $interval,
            ) + 1, $interval, 2e-6, Receiver::EVERYTHING,
            begin: $first - Sessions::WEEK * 604800 - $sky->toe - ($sky->week - Sessions::WEEK) * 604800, antenna: 'INVENTED ANTENNA',
        ));
    }

    /** The position of a static file from the nearest stations, as a report. */
    private function position(string $body, string $name): string
    {
        $bytes = Packed::contents($body, $name);
        $file = ObservationReader::read($bytes, $name);
        $about = $file->statedPlace() ?? throw new UnusableInput(
            $name, 'states no approximate position, so no station near it can be chosen',
        );
        $near = array_keys(self::STATIONS);
        usort(
            $near,
            static fn (string $a, string $b): int => Horizon::distance(
                self::place($a), $about,
            ) <=> Horizon::distance(self::place($b), $about),
        );
        if (Horizon::distance(self::place($near[0]), $about) > 200e3) {
            throw new UnusableInput($name, 'was recorded more than 200 km from every station of this service');
        }
        $from = (int) floor($file->times[0]->sinceEpoch()) + (int) gmmktime(0, 0, 0, 1, 6, 1980) - 18;
        $span = (int) ceil($file->times[\count($file->times) - 1]->since($file->times[0]));
        if ($span < 900) {
            throw new UnusableInput($name, 'holds less than a quarter of an hour');
        }
        $interval = max(30.0, $file->interval() ?? 30.0);
        $orbits = new Orbits(
            NavigationReader::read(self::sky($from, 1)->navigation(self::toes($from, $from + $span)), 'navigation')->ephemerides,
        );
        $text = $this->recorded($near[0], $from, $span + 1, $interval);
        $session = SessionOf::of(ObservationReader::read($text, $near[0]), $file, $near[0], $name);
        $processor = new BaselineProcessor($session, $orbits, null, new Options(deg2rad(12.0)));
        $solution = $processor->run(BaselineProcessor::STATIC, self::place($near[0]), true)[0];
        [$up, $east, $north] = $file->antennaOffset;
        $place = Horizon::of($solution->rover)->shifted($solution->rover, -$east, -$north, -$up);
        $q = Horizon::of($place)->turned($solution->covariance);
        $time = $file->times[0];
        $year = (int) substr((string) $time, 4, 4);
        $epoch = $year + $time->since(GpsTime::civil($year, 1, 1, 0, 0, 0.0)) / (365.25 * 86400.0);

        return (new PositionReport(
            $file->marker, 'EPSG:4258', $epoch, $place, [sqrt($q[0][0]), sqrt($q[1][1]), sqrt($q[2][2])],
            \sprintf(
                'static from %s, %.1f km, %s', $near[0], Horizon::distance(self::place($near[0]), $place) / 1000.0, $solution->solution,
            ), $name,
        ))->write();
    }

    /** The sky of a day, with the noise of one receiver. */
    private static function sky(int $unix, int $noise): Sky
    {
        $days = intdiv($unix - (int) gmmktime(0, 0, 0, 1, 6, 1980), 86400);

        return new Sky(TruthModel::SEED, intdiv($days, 7), ($days % 7) * 86400.0 + 43200.0, 'GE', $noise);
    }

    /** @return list<float> seconds of the week */
    private static function toes(int $from, int $to): array
    {
        $gps = $from - (int) gmmktime(0, 0, 0, 1, 6, 1980);
        $week = intdiv($gps, 604800) * 604800;
        $toes = [];
        for ($t = floor(
            $gps / self::EPHEMERIDES,
        ) * self::EPHEMERIDES; $t <= $gps + $to - $from + self::EPHEMERIDES; $t += self::EPHEMERIDES) {
            $toes[] = $t - $week;
        }

        return $toes;
    }

    /** @return array{float, float, float} geocentric */
    private static function place(string $station): array
    {
        [$lat, $lon, $h] = self::STATIONS[$station];

        return Ellipsoid::grs80()->toCartesian(deg2rad($lat), deg2rad($lon), $h);
    }

    /** @return array{string, int, int, int, string, float} station, from, to, interval, format, when it was ordered */
    private static function understood(string $id): array
    {
        $order = json_decode((string) base64_decode(strtr($id, '-_', '+/'), true), true);
        if (!\is_array($order) || 6 !== \count($order) || !isset(self::STATIONS[$order[0] ?? ''])) {
            throw new UnusableInput('order', 'there is no such order');
        }

        return [(string) $order[0], (int) $order[1], (int) $order[2], (int) $order[3], (string) $order[4], (float) $order[5]];
    }

    private static function instant(mixed $text, string $field): int
    {
        $time = \is_string($text) ? strtotime($text) : false;

        return false === $time ? throw new UnusableInput($field, 'is an instant of UTC, as 2031-05-04T09:00:00Z') : $time;
    }

    /** @return array<mixed> */
    private static function decoded(string $body): array
    {
        $value = json_decode($body, true);

        return \is_array($value) ? $value : throw new UnusableInput('', 'the order is not JSON');
    }

    /**
     * @param array<mixed> $value
     *
     * @return array{int, string, string}
     */
    private static function json(array $value, int $status = 200): array
    {
        return [$status, 'application/json', json_encode($value, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION)];
    }
}
