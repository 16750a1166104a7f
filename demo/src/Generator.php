<?php

declare(strict_types=1);

namespace Demo;

use Mensura\Quantity\Angle;

/** Makes the field files of the demo project from the truth model. The same seed makes the same files, byte for byte. */
final class Generator
{
    /** The errors of the instrument, as the default weights of a project state them. */
    public const DIRECTION_SD = 1.5 / 3600.0;
    public const ZENITH_SD = 2.0 / 3600.0;
    public const DISTANCE_SD = 0.0015;
    public const DISTANCE_PPM = 2.0;
    public const CENTRING_SD = 0.001;

    private \Random\Randomizer $random;
    private ?float $spare = null;

    public function __construct(private readonly TruthModel $truth, int $seed = TruthModel::SEED)
    {
        $this->random = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar($seed));
    }

    /** @return array<string, string> contents by file name, in the order they are brought in */
    public function files(): array
    {
        return [
            'control-kestrel-tarn.csv' => $this->control(),
            'rounds-crest.csv' => $this->rounds(),
            'vectors-static.csv' => $this->vectors(),
            'pit-topography.csv' => $this->topography(),
        ];
    }

    /**
     * The site grid of the works: marks known on both sides, and pegs known only there. Apart from the field files, whose
     * errors must not change when these are asked for.
     *
     * @return array{marks: string, pegs: string}
     */
    public function siteFiles(): array
    {
        $marks = ['# Kestrel Tarn, site grid of the works, marks. Simulated.', 'point,site easting [m],site northing [m],site height [m]'];
        foreach (['KT01', 'KT03', 'KT04', 'KT06', 'KT07', 'KT08', 'KT09', 'KT12'] as $name) {
            [$e, $n, $h] = TruthModel::site(...TruthModel::MARKS[$name]);
            $wrong = $name === TruthModel::SITE_BLUNDER['mark'] ? TruthModel::SITE_BLUNDER : ['e' => 0.0, 'n' => 0.0];
            $marks[] = \sprintf(
                '%s,%.3f,%.3f,%.3f', $name, $e + $wrong['e'] + 0.003 * $this->normal(),
                $n + $wrong['n'] + 0.003 * $this->normal(), $h + 0.004 * $this->normal(),
            );
        }
        $pegs = ['# Kestrel Tarn, spillway pegs in the site grid. Simulated.', 'point,easting [m],northing [m],height [m],code'];
        for ($i = 0; $i < 14; ++$i) {
            [$e, $n, $h] = TruthModel::site(493300.0 + 20.0 * $i, 6028180.0 + 9.0 * sin($i / 2.0), 229.0 - 0.4 * $i);
            $pegs[] = \sprintf('SP%02d,%.3f,%.3f,%.3f,PEG', $i + 1, $e, $n, $h);
        }

        return ['marks' => implode("\n", $marks)."\n", 'pegs' => implode("\n", $pegs)."\n"];
    }

    /** Real-time shots of the drainage from a base with a wrong position: all of them are off by as much as it. */
    public function roverShots(): string
    {
        ['mark' => $mark, 'east' => $east, 'north' => $north, 'up' => $up] = TruthModel::WRONG_BASE;
        [$e, $n, $h] = TruthModel::MARKS[$mark];
        $rows = [
            '# Kestrel Tarn, drainage, real-time positions from a base on KT05. Simulated.',
            'point,easting [m],northing [m],ellipsoidal height [m],code',
            \sprintf('BASE1,%.3f,%.3f,%.3f,BASE', $e + $east, $n + $north, $h + $up),
        ];
        foreach (self::drainage() as $i => [$x, $y, $z, $code]) {
            $rows[] = \sprintf(
                'D%03d,%.3f,%.3f,%.3f,%s', $i + 1, $x + $east + 0.008 * $this->normal(), $y + $north + 0.008 * $this->normal(),
                $z + $up + 0.014 * $this->normal(), $code,
            );
        }

        return implode("\n", $rows)."\n";
    }

    /** @return list<array{float, float, float, string}> the true drainage: a ditch and its gullies, easting, northing, height, code */
    public static function drainage(): array
    {
        $points = [];
        for ($i = 0; $i < 36; ++$i) {
            $e = 493330.0 + 6.0 * $i;
            $points[] = [$e, 6028360.0 + 14.0 * sin($i / 6.0), 233.5 - 0.06 * $i, 0 === $i % 6 ? 'GULLY' : 'DITCH'];
        }

        return $points;
    }

    /** The traverse along the access road: LandXML, two rounds in both faces, by an instrument whose axes are not quite true. */
    public function traverse(): string
    {
        $collimation = 4.1 / 3600.0;
        $index = -6.3 / 3600.0;
        $setups = '';
        $heights = [];
        foreach (array_keys(TruthModel::MARKS + TruthModel::ROAD) as $name) {
            $heights[$name] = round(1.42 + 0.25 * $this->uniform(), 3);
        }
        foreach (TruthModel::TRAVERSE as $station => $targets) {
            $id = 'SU-'.$station;
            $rounds = '';
            foreach (['1', '2'] as $round) {
                $turn = 360.0 * $this->uniform();
                $sights = '';
                foreach ([[$targets[0], 1], [$targets[1], 1], [$targets[1], 2], [$targets[0], 2]] as [$target, $face]) {
                    $s = $this->truth->sight($station, $target, $heights[$station], $heights[$target]);
                    $sign = 1 === $face ? 1.0 : -1.0;
                    $centring = rad2deg(\M_SQRT2 * self::CENTRING_SD / $s->plan);
                    $zenith = rad2deg(atan2($s->plan, $s->up) - TruthModel::REFRACTION * $s->length / (2.0 * $s->meanRadius))
                        + $sign * $index + hypot(self::ZENITH_SD, $centring) * $this->normal();
                    $direction = rad2deg($s->azimuth()) - $turn + $sign * $collimation / sin(deg2rad($zenith))
                        + hypot(self::DIRECTION_SD, $centring) * $this->normal();
                    $distance = $s->length + hypot(self::DISTANCE_SD, 1e-6 * self::DISTANCE_PPM * $s->length) * $this->normal()
                        + \M_SQRT2 * self::CENTRING_SD * $this->normal();
                    $sights .= \sprintf(
                        '<RawObservation targetHeight="%.3f" horizAngle="%.5f" zenithAngle="%.5f" slopeDistance="%.4f" directFace="%s">'
                            ."<TargetPoint pntRef=\"%s\"/></RawObservation>\n",
                        $heights[$target], fmod($direction + (1 === $face ? 720.0 : 900.0), 360.0),
                        1 === $face ? $zenith : 360.0 - $zenith, $distance, 1 === $face ? 'true' : 'false', $target,
                    );
                }
                $rounds .= "<ObservationGroup id=\"$id-$round\" setupID=\"$id\" setID=\"$round\">\n$sights</ObservationGroup>\n";
            }
            $setups .= \sprintf(
                '<InstrumentSetup id="%s" stationName="%s" instrumentHeight="%.3f">'
                    ."<InstrumentPoint pntRef=\"%2\$s\"/></InstrumentSetup>\n%s",
                $id, $station, $heights[$station], $rounds,
            );
        }

        return "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n"
            ."<LandXML xmlns=\"http://www.landxml.org/schema/LandXML-1.2\" version=\"1.2\" date=\"2031-05-04\" time=\"08:00:00\">\n"
            .'<Units><Metric areaUnit="squareMeter" linearUnit="meter" volumeUnit="cubicMeter" temperatureUnit="celsius" '
            ."pressureUnit=\"milliBars\" angularUnit=\"decimal degrees\" directionUnit=\"decimal degrees\"/></Units>\n"
            ."<Project name=\"Kestrel Tarn, access road. Simulated.\"/>\n"
            ."<Survey>\n<SurveyHeader name=\"Access road\"/>\n$setups</Survey>\n</LandXML>\n";
    }

    /**
     * The levelling along the dam: two runs from benchmark to benchmark, read back and fore. Apart from the field files, as
     * the site grid is.
     *
     * @return list<array{name: string, rows: list<array{kind: string, point: string, reading: float, distance: float}>}>
     */
    public function levels(): array
    {
        $runs = [];
        $blunder = TruthModel::LEVEL_BLUNDER;
        foreach (TruthModel::LEVELLED as $name => $marks) {
            $points = $heights = [];
            foreach ($marks as $k => $mark) {
                if ($k > 0) {
                    // Two turning points between marks, on the ground between them.
                    for ($t = 1; $t <= 2; ++$t) {
                        $points[] = \sprintf('%s.%d', $name, \count($points));
                        $heights[] = TruthModel::levelHeight($marks[$k - 1])
                            + $t / 3 * (TruthModel::levelHeight($mark) - TruthModel::levelHeight($marks[$k - 1]))
                            + 0.3 * $this->normal();
                    }
                }
                $points[] = $mark;
                $heights[] = TruthModel::levelHeight($mark);
            }
            $rows = [];
            for ($k = 0; $k + 1 < \count($points); ++$k) {
                $length = 22.0 + 14.0 * $this->uniform();
                $horizon = max($heights[$k], $heights[$k + 1]) + 0.4 + 0.9 * $this->uniform();
                foreach (['back' => $k, 'fore' => $k + 1] as $kind => $at) {
                    $reading = round($horizon - $heights[$at] + 0.0004 * $this->normal(), 4);
                    if ($name === $blunder['run'] && 'fore' === $kind && $blunder['setup'] - 1 === $k) {
                        $reading = round($reading + $blunder['metres'], 4);
                    }
                    $rows[] = [
                        'kind' => $kind, 'point' => $points[$at], 'reading' => $reading,
                        'distance' => round($length + 1.5 * $this->normal(), 1),
                    ];
                }
            }
            $runs[] = ['name' => $name, 'rows' => $rows];
        }

        return $runs;
    }

    private function normal(): float
    {
        if (null !== $this->spare) {
            $value = $this->spare;
            $this->spare = null;

            return $value;
        }
        $u = $this->uniform();
        $v = $this->uniform();
        $r = sqrt(-2.0 * log($u));
        $this->spare = $r * sin(2.0 * \M_PI * $v);

        return $r * cos(2.0 * \M_PI * $v);
    }

    private function uniform(): float
    {
        return ($this->random->getInt(0, 2 ** 52 - 1) + 0.5) / 2 ** 52;
    }

    private function control(): string
    {
        $rows = [
            '# Kestrel Tarn, control list. Simulated.',
            'point,easting [m],northing [m],ellipsoidal height [m],held,sd easting [mm],sd northing [mm],sd height [mm],description',
        ];
        foreach (['KT01' => 'enh', 'KT04' => '', 'KT07' => '', 'KT08' => ''] as $name => $held) {
            [$e, $n, $h] = TruthModel::MARKS[$name];
            if ('' === $held) {
                $rows[] = \sprintf(
                    '%s,%.3f,%.3f,%.3f,no,4,4,7,pillar', $name, $e + 0.004 * $this->normal(),
                    $n + 0.004 * $this->normal(), $h + 0.007 * $this->normal(),
                );
            } else {
                $rows[] = \sprintf('%s,%.4f,%.4f,%.4f,%s,,,,pillar', $name, $e, $n, $h, $held);
            }
        }

        return implode("\n", $rows)."\n";
    }

    private function rounds(): string
    {
        $rows = [
            '# Kestrel Tarn, rounds over the crest. Simulated.',
            'station;round;instrument height [m];target;target height [m];direction [dms];zenith angle [dms];slope distance [m];code',
        ];
        $blunders = TruthModel::BLUNDERS;
        foreach (TruthModel::SIGHTS as $station => $targets) {
            $hi = 1.45 + round(0.2 * $this->uniform(), 3);
            foreach (['1', '2'] as $set) {
                $turn = 360.0 * $this->uniform();
                foreach ($targets as $target) {
                    $ht = 1.5 + 0.1 * $this->random->getInt(0, 4);
                    $s = $this->truth->sight($station, $target, $hi, $ht);
                    $direction = rad2deg($s->azimuth()) - $turn
                        + hypot(self::DIRECTION_SD, rad2deg(\M_SQRT2 * self::CENTRING_SD / $s->plan)) * $this->normal();
                    $zenith = rad2deg(atan2($s->plan, $s->up) - TruthModel::REFRACTION * $s->length / (2.0 * $s->meanRadius))
                        + hypot(self::ZENITH_SD, rad2deg(\M_SQRT2 * self::CENTRING_SD / $s->plan)) * $this->normal();
                    $distance = $s->length
                        + hypot(self::DISTANCE_SD, 1e-6 * self::DISTANCE_PPM * $s->length) * $this->normal()
                        + \M_SQRT2 * self::CENTRING_SD * $this->normal();
                    $is = static fn (array $b): bool => $b['station'] === $station && $b['set'] === $set && $b['target'] === $target;
                    $direction += $is($blunders['direction']) ? $blunders['direction']['degrees'] : 0.0;
                    $distance += $is($blunders['distance']) ? $blunders['distance']['metres'] : 0.0;
                    $booked = $ht - ($is($blunders['height']) ? $blunders['height']['metres'] : 0.0);
                    $rows[] = \sprintf(
                        '%s;%s;%.3f;%s;%.3f;%s;%s;%.4f;', $station, $set, $hi, $target, $booked,
                        Angle::format(fmod($direction + 720.0, 360.0)), Angle::format($zenith), $distance,
                    );
                }
            }
        }

        return implode("\n", $rows)."\n";
    }

    private function vectors(): string
    {
        $rows = [
            '# Kestrel Tarn, processed static vectors, ETRS89 geocentric. Simulated.',
            'from,to,session,dX [m],dY [m],dZ [m],cov XX [m2],cov XY [m2],cov XZ [m2],cov YY [m2],cov YZ [m2],cov ZZ [m2]',
        ];
        $blunder = TruthModel::BLUNDERS['vector'];
        foreach (TruthModel::VECTORS as [$from, $to, $session]) {
            $a = 3 * $this->truth->index[$from];
            $b = 3 * $this->truth->index[$to];
            $axes = \array_slice($this->truth->state->axes, 9 * $this->truth->index[$to], 9);
            $sd = [0.0025, 0.0030, 0.0065];
            $noise = array_map(fn (float $s): float => $s * $this->normal(), $sd);
            if ($from === $blunder['from'] && $to === $blunder['to']) {
                $noise[2] += $blunder['metres'];
            }
            $d = $covariance = [];
            for ($i = 0; $i < 3; ++$i) {
                $d[$i] = $this->truth->state->position[$b + $i] - $this->truth->state->position[$a + $i];
                for ($k = 0; $k < 3; ++$k) {
                    $d[$i] += $axes[3 * $k + $i] * $noise[$k];
                    for ($j = 0; $j < 3; ++$j) {
                        $covariance[$i][$j] = ($covariance[$i][$j] ?? 0.0) + $axes[3 * $k + $i] * $axes[3 * $k + $j] * $sd[$k] ** 2;
                    }
                }
            }
            $rows[] = \sprintf('%s,%s,%s,%.4f,%.4f,%.4f,%.4e,%.4e,%.4e,%.4e,%.4e,%.4e', $from, $to, $session, ...[
                ...$d, $covariance[0][0], $covariance[0][1], $covariance[0][2], $covariance[1][1], $covariance[1][2],
                $covariance[2][2],
            ]);
        }

        return implode("\n", $rows)."\n";
    }

    private function topography(): string
    {
        $rows = [
            '# Kestrel Tarn, borrow pit, real-time positions. Simulated.',
            'point,easting [m],northing [m],ellipsoidal height [m],code',
        ];
        $number = 1;
        $add = function (float $e, float $n, string $code, float $sd) use (&$rows, &$number): void {
            $e += 0.010 * $this->normal();
            $n += 0.010 * $this->normal();
            $rows[] = \sprintf('P%03d,%.3f,%.3f,%.3f,%s', $number++, $e, $n, TruthModel::ground($e, $n) + $sd * $this->normal(), $code);
        };
        // The crest of the pit, the toe of its wall, then spot heights inside and around.
        foreach (['CREST' => [1.0, 64], 'TOE' => [0.78, 56]] as $code => [$ratio, $count]) {
            for ($i = 0; $i < $count; ++$i) {
                $a = 2.0 * \M_PI * $i / $count;
                $add(
                    TruthModel::PIT_E + $ratio * TruthModel::PIT_A * cos($a),
                    TruthModel::PIT_N + $ratio * TruthModel::PIT_B * sin($a), $code, 0.010,
                );
            }
        }
        for ($e = 493524.0; $e <= 493716.0; $e += 8.0) {
            for ($n = 6028000.0; $n <= 6028120.0; $n += 8.0) {
                $pe = $e + 2.5 * ($this->uniform() - 0.5);
                $pn = $n + 2.5 * ($this->uniform() - 0.5);
                $r = hypot(($pe - TruthModel::PIT_E) / TruthModel::PIT_A, ($pn - TruthModel::PIT_N) / TruthModel::PIT_B);
                if (abs($r - 1.0) > 0.03 && abs($r - 0.78) > 0.03) {
                    $add($pe, $pn, 'GROUND', 0.012);
                }
            }
        }

        return implode("\n", $rows)."\n";
    }
}
