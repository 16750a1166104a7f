<?php

declare(strict_types=1);

namespace Mensura\Tests\Gnss;

/**
 * An invented constellation on circles, and what two receivers would record of it: RINEX text with a known truth.
 *
 * It shares no code with what it tests: satellites by two turns of a circle, travel of the signal by iteration in the frame that
 * does not turn, a troposphere of its own that falls with the sine of the elevation.
 */
final class Constellation
{
    private const C = 299792458.0;
    private const GM = 3.986005e14;
    private const TURN = 7.2921151467e-5;
    private const A = 26560000.0;
    private const F1 = 1575.42e6;
    private const F2 = 1227.60e6;
    private const WEEK = 2660;
    /** Time of ephemerides, seconds of the week: the session begins a quarter of an hour before. */
    private const TOE = 208800;

    private \Random\Randomizer $random;

    /** @var array<int, array{float, float, float, float}> node, inclination, argument at the time of ephemerides, clock bias */
    public array $satellites = [];

    /** @var array<string, int> slips planted: satellite and epoch */
    public array $slips = [];

    public function __construct(int $seed)
    {
        $this->random = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar($seed));
        for ($k = 0; $k < 30; ++$k) {
            $this->satellites[$k + 1] = [
                deg2rad(60.0 * ($k % 6)), deg2rad(55.0), deg2rad(72.0 * intdiv($k, 6) + 25.0 * ($k % 6)), 1e-4 * $this->uniform(),
            ];
        }
    }

    public function navigation(): string
    {
        $text = self::head('     3.04           N: GNSS NAV DATA    G: GPS', 'RINEX VERSION / TYPE').self::head('', 'END OF HEADER');
        foreach ($this->satellites as $prn => [$node, $i, $u, $bias]) {
            // The node is stated for the beginning of the week, as the interface document counts it.
            $omega0 = $node + self::TURN * self::TOE;
            $rows = [
                [$bias, 0.0, 0.0], [1, 0, 0, $u], [0, 0, 0, sqrt(self::A)], [self::TOE, 0, $omega0, 0], [$i, 0, 0, 0],
                [0, 0, self::WEEK, 0], [0, 0, 0, 1], [self::TOE - 3600, 4, 0, 0],
            ];
            foreach ($rows as $k => $row) {
                $line = 0 === $k ? \sprintf('G%02d %s', $prn, self::civil(self::TOE)) : '    ';
                foreach ($row as $value) {
                    $line .= strtr(\sprintf('%19.12E', $value), 'E', 'D');
                }
                $text .= $line."\n";
            }
        }

        return $text;
    }

    /** Orbits every 15 minutes over eight hours, as an SP3-c file. */
    public function precise(): string
    {
        $text = "#cP2030 12 31  6  0  0.00000000      33 ORBIT WGS84 FIT  TEST\n%c G  cc GPS ccc cccc cccc cccc cccc "
            ."ccccc ccccc ccccc ccccc\n";
        for ($k = -16; $k <= 16; ++$k) {
            $t = self::TOE + 900.0 * $k;
            $text .= '*  '.self::civil($t).".00000000\n";
            foreach ($this->satellites as $prn => [$node, $i, $u0, $bias]) {
                $u = $u0 + sqrt(self::GM / self::A ** 3) * 900.0 * $k;
                $lon = $node - self::TURN * 900.0 * $k;
                $x = self::A * cos($u);
                $y = self::A * sin($u);
                $text .= \sprintf(
                    "PG%02d%14.6F%14.6F%14.6F%14.6F\n", $prn, ($x * cos($lon) - $y * cos($i) * sin($lon)) / 1000.0,
                    ($x * sin($lon) + $y * cos($i) * cos($lon)) / 1000.0, $y * sin($i) / 1000.0, 1e6 * $bias,
                );
            }
        }

        return $text."EOF\n";
    }

    /**
     * @param array{float, float, float}|\Closure(int): array{float, float, float} $place   at an epoch, where it moves
     * @param list<string>                             $types of C1C L1C C2W L2W
     * @param float                                    $clock  of the receiver, seconds ahead
     */
    public function observations(
        string $marker, array|\Closure $place, int $epochs, float $interval, float $clock, array $types = ['C1C', 'L1C', 'C2W', 'L2W'],
        float $ionosphere = 4.0,
    ): string {
        $text = self::head('     3.04           OBSERVATION DATA    G: GPS', 'RINEX VERSION / TYPE').self::head($marker, 'MARKER NAME');
        $first = \is_array($place) ? $place : $place(0);
        $text .= self::head(\sprintf('%14.4F%14.4F%14.4F', ...$first), 'APPROX POSITION XYZ');
        $text .= self::head(\sprintf('%14.4F%14.4F%14.4F', 0, 0, 0), 'ANTENNA: DELTA H/E/N');
        $text .= self::head(\sprintf('G%5d %s', \count($types), implode(' ', $types)), 'SYS / # / OBS TYPES');
        $text .= self::head('  2031     1     1     0     0    0.0000000     GPS', 'TIME OF FIRST OBS').self::head('', 'END OF HEADER');
        $cycles = [];
        for ($k = 0; $k < $epochs; ++$k) {
            $tag = self::TOE - 900 + $k * $interval;
            $at = \is_array($place) ? $place : $place($k);
            $rows = '';
            $count = 0;
            foreach ($this->satellites as $prn => $unused) {
                [$range, $elevation, $bias] = $this->sight($prn, $at, $tag - $clock);
                if ($elevation < 0.1) {
                    continue;
                }
                ++$count;
                $rows .= \sprintf('G%02d', $prn);
                foreach ($types as $type) {
                    $f = '1' === $type[1] ? self::F1 : self::F2;
                    $delay = 2.4 / sin($elevation);
                    $iono = $ionosphere / sin(max($elevation, 0.3)) * (self::F1 / $f) ** 2;
                    $code = $range + self::C * ($clock - $bias) + $delay;
                    if ('C' === $type[0]) {
                        $rows .= \sprintf('%14.3F  ', $code + $iono + 0.3 * $this->normal());
                        continue;
                    }
                    $key = "$prn $type $marker";
                    $cycles[$key] ??= $this->random->getInt(-1000000, 1000000);
                    $cycles[$key] += ($this->slips["$marker $prn"] ?? -1) === $k ? ('1' === $type[1] ? 7 : 5) : 0;
                    $rows .= \sprintf('%14.3F  ', ($code - $iono + 0.002 * $this->normal()) * $f / self::C + $cycles[$key]);
                }
                $rows .= "\n";
            }
            $text .= \sprintf("> %s.0000000  0%3d\n", self::civil($tag), $count).$rows;
        }

        return $text;
    }

    /**
     * @param array{float, float, float} $at
     *
     * @return array{float, float, float} range between the places of sending and receiving, elevation, clock bias
     */
    private function sight(int $prn, array $at, float $received): array
    {
        // In the frame that stands still and agrees with the earth's at the moment of reception.
        $travel = 0.075;
        $range = 0.0;
        $s = [0.0, 0.0, 0.0];
        for ($k = 0; $k < 8; ++$k) {
            $t = $received - $travel - self::TOE;
            [$node, $i, $u0] = $this->satellites[$prn];
            $u = $u0 + sqrt(self::GM / self::A ** 3) * $t;
            // Longitude of the node against the earth at reception.
            $lon = $node - self::TURN * ($received - self::TOE);
            $x = self::A * cos($u);
            $y = self::A * sin($u);
            $s = [$x * cos($lon) - $y * cos($i) * sin($lon), $x * sin($lon) + $y * cos($i) * cos($lon), $y * sin($i)];
            $range = sqrt(($s[0] - $at[0]) ** 2 + ($s[1] - $at[1]) ** 2 + ($s[2] - $at[2]) ** 2);
            $travel = $range / self::C;
        }
        $r = sqrt($at[0] ** 2 + $at[1] ** 2 + $at[2] ** 2);
        $up = (($s[0] - $at[0]) * $at[0] + ($s[1] - $at[1]) * $at[1] + ($s[2] - $at[2]) * $at[2]) / ($r * $range);

        return [$range, asin($up), $this->satellites[$prn][3]];
    }

    private static function head(string $text, string $label): string
    {
        return str_pad($text, 60).$label."\n";
    }

    private static function civil(float $seconds): string
    {
        // The week begins on 2030-12-29.
        return gmdate('Y m d H i s', (int) (gmmktime(0, 0, 0, 12, 29, 2030) + $seconds));
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
