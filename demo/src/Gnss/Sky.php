<?php

declare(strict_types=1);

namespace Demo\Gnss;

/**
 * An invented constellation on circles, and what receivers would record of it: RINEX text with a known truth.
 *
 * It shares no code with the processing it tests: satellites by two turns of a circle, travel of the signal by iteration in the
 * frame that does not turn, a troposphere of its own that falls with the sine of the elevation.
 */
final class Sky
{
    private const C = 299792458.0;
    private const GM = 3.986005e14;
    private const TURN = 7.2921151467e-5;
    private const FREQUENCIES = ['G' => ['1' => 1575.42e6, '2' => 1227.60e6], 'E' => ['1' => 1575.42e6, '5' => 1176.45e6]];
    /** Radius, count and planes of each system. */
    private const SYSTEMS = ['G' => [26560000.0, 30, 6, 55.0], 'E' => [29600000.0, 24, 3, 56.0]];
    /** Elevation below which nothing is received, radians. */
    private const HORIZON = 0.1;

    private \Random\Randomizer $random;

    /**
     * @var array<string, array{float, float, float, float, float}> radius, node, inclination, argument at the reference time, clock bias
     */
    public array $satellites = [];

    /**
     * @param int    $week GPS week of everything recorded
     * @param float  $toe  time of reference, seconds of the week
     * @param string $systems letters of the systems that are up
     * @param ?int   $noise   seed of what receivers add to it; that of the sky itself where none is given
     */
    public function __construct(
        int $seed, public readonly int $week = 2660, public readonly float $toe = 208800.0, string $systems = 'G', ?int $noise = null,
    ) {
        $this->random = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar($seed));
        foreach (str_split($systems) as $system) {
            [$radius, $count, $planes, $inclination] = self::SYSTEMS[$system];
            $perPlane = intdiv($count, $planes);
            for ($k = 0; $k < $count; ++$k) {
                $this->satellites[\sprintf('%s%02d', $system, $k + 1)] = [
                    $radius, deg2rad(360.0 / $planes * ($k % $planes) + ('E' === $system ? 31.0 : 0.0)), deg2rad($inclination),
                    deg2rad(360.0 / $perPlane * intdiv($k, $planes) + 25.0 * ($k % $planes)), 1e-4 * $this->uniform(),
                ];
            }
        }
        if (null !== $noise) {
            $this->random = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar($noise));
        }
    }

    /** @param list<float> $toes times of the ephemerides, seconds of the week; one at the time of reference where none is given */
    public function navigation(array $toes = []): string
    {
        $text = self::head('     3.04           N: GNSS NAV DATA    M: MIXED', 'RINEX VERSION / TYPE').self::head('', 'END OF HEADER');
        foreach ([] === $toes ? [$this->toe] : $toes as $toe) {
            foreach ($this->satellites as $id => [$radius, $node, $i, $u, $bias]) {
                $since = $toe - $this->toe;
                // The node is stated for the beginning of the week, as the interface document counts it.
                $omega0 = $node + self::TURN * $this->toe;
                $argument = fmod($u + sqrt(self::GM / $radius ** 3) * $since, 2.0 * \M_PI);
                $isGalileo = 'E' === $id[0];
                $rows = [
                    [$bias, 0.0, 0.0], [1, 0, 0, $argument], [0, 0, 0, sqrt($radius)], [$toe, 0, $omega0, 0], [$i, 0, 0, 0],
                    [0, $isGalileo ? 517 : 0, $this->week, 0], [0, 0, 0, $isGalileo ? 0 : 1], [$toe - 3600, 4, 0, 0],
                ];
                foreach ($rows as $k => $row) {
                    $line = 0 === $k ? $id.' '.$this->civil($toe) : '    ';
                    foreach ($row as $value) {
                        $line .= strtr(\sprintf('%19.12E', $value), 'E', 'D');
                    }
                    $text .= $line."\n";
                }
            }
        }

        return $text;
    }

    /** Orbits every 15 minutes over eight hours about the time of reference, as an SP3-c file. */
    public function precise(): string
    {
        $date = $this->civil($this->toe - 14400.0);
        $text = '#cP'.substr($date, 0, 16)."  0.00000000      33 ORBIT WGS84 FIT  TEST\n%c M  cc GPS ccc cccc cccc cccc cccc "
            ."ccccc ccccc ccccc ccccc\n";
        for ($k = -16; $k <= 16; ++$k) {
            $text .= '*  '.$this->civil($this->toe + 900.0 * $k).".00000000\n";
            foreach ($this->satellites as $id => $satellite) {
                [$x, $y, $z] = self::place($satellite, 900.0 * $k, 900.0 * $k);
                $text .= \sprintf(
                    "P%s%14.6F%14.6F%14.6F%14.6F\n", $id, $x / 1000.0, $y / 1000.0, $z / 1000.0, 1e6 * $satellite[4],
                );
            }
        }

        return $text."EOF\n";
    }

    public function observations(Receiver $r): string
    {
        $first = \is_array($r->place) ? $r->place : ($r->place)(0);
        $header = $r->header ?? $first;
        $begin = $this->toe + $r->begin;
        $text = self::head('     3.04           OBSERVATION DATA    M: MIXED', 'RINEX VERSION / TYPE')
            .('' === $r->marker ? '' : self::head($r->marker, 'MARKER NAME'))
            .('' === $r->markerType ? '' : self::head($r->markerType, 'MARKER TYPE'))
            .self::head(\sprintf('%-20s%-20s%-20s', '0001', 'INVENTED RECEIVER', '1.0'), 'REC # / TYPE / VERS')
            .self::head(\sprintf('%-20s%-20s', '0001', $r->antenna), 'ANT # / TYPE')
            .self::head(\sprintf('%14.4F%14.4F%14.4F', ...$header), 'APPROX POSITION XYZ')
            .self::head(\sprintf('%14.4F%14.4F%14.4F', $r->height, 0, 0), 'ANTENNA: DELTA H/E/N');
        foreach ($r->types as $system => $types) {
            $text .= self::head(\sprintf('%s%5d %s', $system, \count($types), implode(' ', $types)), 'SYS / # / OBS TYPES');
        }
        $text .= self::head(\sprintf('%10.3F', $r->interval), 'INTERVAL');
        $text .= self::head(
            '  '.strtr($this->civil($begin), ' ', ' ').'.0000000     GPS', 'TIME OF FIRST OBS',
        ).self::head('', 'END OF HEADER');
        $cycles = $up = [];
        for ($k = 0; $k < $r->epochs; ++$k) {
            $tag = $begin + $k * $r->interval;
            $at = \is_array($r->place) ? $r->place : ($r->place)($k);
            $rows = '';
            $count = 0;
            foreach ($this->satellites as $id => $satellite) {
                if (!isset($r->types[$id[0]])) {
                    continue;
                }
                [$range, $elevation, $azimuth] = $this->sight($satellite, $at, $tag - $r->clock);
                if ($elevation < self::HORIZON || $r->isHidden($elevation, $azimuth, $k)) {
                    $up[$id] = false;
                    continue;
                }
                $isNew = !($up[$id] ?? true);
                $up[$id] = true;
                ++$count;
                $rows .= $id.$this->row($r, $id, $k, $range, $elevation, self::air($at), $satellite[4], $isNew, $cycles)."\n";
            }
            $text .= \sprintf("> %s.0000000  0%3d\n", $this->civil($tag), $count).$rows;
        }

        return $text;
    }

    /** @param array<string, int> $cycles of each signal, kept from epoch to epoch */
    private function row(
        Receiver $r, string $id, int $k, float $range, float $elevation, float $air, float $bias, bool $isNew, array &$cycles,
    ): string {
        $row = '';
        $sine = sin($elevation);
        $noise = sqrt(0.5 + 0.5 / ($sine * $sine));
        $own = $range + self::C * ($r->clock - $bias) + $air / $sine;
        foreach ($r->types[$id[0]] as $type) {
            $f = self::FREQUENCIES[$id[0]][$type[1]];
            $iono = $r->ionosphere / max($sine, 0.3) * (1575.42e6 / $f) ** 2;
            if ('S' === $type[0]) {
                $row .= \sprintf('%14.3F  ', 32.0 + 18.0 * $sine - ('1' === $type[1] ? 0.0 : 4.0) + $this->normal());
                continue;
            }
            if ('C' === $type[0]) {
                $row .= \sprintf('%14.3F  ', $own + $iono + $r->codeNoise * $noise * $this->normal());
                continue;
            }
            $key = $id.$type;
            if ($isNew || !isset($cycles[$key])) {
                $cycles[$key] = $this->random->getInt(-1000000, 1000000);
            }
            $cycles[$key] += ($r->slips[$id] ?? -1) === $k ? ('1' === $type[1] ? 7 : 5) : 0;
            $row .= \sprintf(
                '%14.3F%s ', ($own - $iono + 0.002 * $noise * $this->normal()) * $f / self::C + $cycles[$key], $isNew ? '1' : ' ',
            );
        }

        return $row;
    }

    /**
     * @param array{float, float, float, float, float} $satellite
     * @param array{float, float, float}               $at
     *
     * @return array{float, float, float} range between the places of sending and receiving, elevation, azimuth
     */
    private function sight(array $satellite, array $at, float $received): array
    {
        // In the frame that stands still and agrees with the earth's at the moment of reception.
        $travel = 0.075;
        $range = 0.0;
        $s = [0.0, 0.0, 0.0];
        for ($k = 0; $k < 5; ++$k) {
            $s = self::place($satellite, $received - $travel - $this->toe, $received - $this->toe);
            $range = sqrt(($s[0] - $at[0]) ** 2 + ($s[1] - $at[1]) ** 2 + ($s[2] - $at[2]) ** 2);
            $travel = $range / self::C;
        }
        $r = sqrt($at[0] ** 2 + $at[1] ** 2 + $at[2] ** 2);
        $p = hypot($at[0], $at[1]);
        $d = [$s[0] - $at[0], $s[1] - $at[1], $s[2] - $at[2]];
        $up = ($d[0] * $at[0] + $d[1] * $at[1] + $d[2] * $at[2]) / ($r * $range);
        $east = (-$d[0] * $at[1] + $d[1] * $at[0]) / $p;
        $north = ($d[2] * $p * $p - $at[2] * ($d[0] * $at[0] + $d[1] * $at[1])) / ($p * $r);

        return [$range, asin($up), atan2($east, $north)];
    }

    /**
     * @param array{float, float, float, float, float} $satellite
     * @param float                                    $sent     since the time of reference, seconds
     * @param float                                    $received whose turn of the earth the axes have
     *
     * @return array{float, float, float}
     */
    private static function place(array $satellite, float $sent, float $received): array
    {
        [$radius, $node, $i, $u0] = $satellite;
        $u = $u0 + sqrt(self::GM / $radius ** 3) * $sent;
        $lon = $node - self::TURN * $received;
        $x = $radius * cos($u);
        $y = $radius * sin($u);

        return [$x * cos($lon) - $y * cos($i) * sin($lon), $x * sin($lon) + $y * cos($i) * cos($lon), $y * sin($i)];
    }

    /**
     * Delay of the troposphere in the zenith of a place, metres: it thins out with the height above the ellipsoid.
     *
     * @param array{float, float, float} $at
     */
    private static function air(array $at): float
    {
        $p = hypot($at[0], $at[1]);
        $latitude = atan2($at[2], $p * (1.0 - 0.00669438));
        $height = $p / cos($latitude) - 6378137.0 / sqrt(1.0 - 0.00669438 * sin($latitude) ** 2);

        return 2.4 * exp(-$height / 7500.0);
    }

    private static function head(string $text, string $label): string
    {
        return str_pad($text, 60).$label."\n";
    }

    private function civil(float $seconds): string
    {
        return gmdate('Y m d H i s', gmmktime(0, 0, 0, 1, 6, 1980) + $this->week * 604800 + (int) $seconds);
    }

    private function normal(): float
    {
        return sqrt(-2.0 * log($this->uniform())) * cos(2.0 * \M_PI * $this->uniform());
    }

    private function uniform(): float
    {
        return ($this->random->getInt(0, 2 ** 52 - 1) + 0.5) / 2 ** 52;
    }
}
