<?php

declare(strict_types=1);

namespace Demo;

use Mensura\Network\GridFrame;
use Mensura\Network\NetworkState;
use Mensura\Network\Sight;
use Mensura\Reference\Registry\Registry;

/**
 * The invented truth of the demo project: a small earth dam, Kestrel Tarn. Nobody's land; EPSG:25830, ellipsoidal heights.
 *
 * Everything measured is simulated from here with a seeded generator, so that every stage's answer is known. Planted
 * blunders are in {@see self::BLUNDERS}.
 */
final class TruthModel
{
    public const SYSTEM = 'EPSG:25830';
    public const SEED = 20310504;
    public const REFRACTION = 0.13;

    /** Control and stations: e, n, h. */
    public const MARKS = [
        'KT01' => [493120.4120, 6028061.2380, 236.4180],
        'KT02' => [493268.9310, 6028242.6710, 231.9020],
        'KT03' => [493377.2050, 6028105.8840, 228.7440],
        'KT04' => [493212.0870, 6028408.3390, 244.2610],
        'KT05' => [493446.5120, 6028296.7630, 229.3180],
        'KT06' => [493379.8660, 6028466.0520, 238.9530],
        'KT07' => [493560.3390, 6028176.4470, 226.0270],
        'KT08' => [493529.6050, 6028441.1960, 233.4850],
        'KT09' => [493607.7740, 6028307.9150, 228.1060],
        'KT10' => [493300.1420, 6028330.5170, 233.0970],
        'KT11' => [493481.2270, 6028203.1480, 227.5360],
        'KT12' => [493187.3960, 6028191.8020, 234.6690],
    ];

    /** Stations of the traverse along the access road. */
    public const ROAD = [
        'T1' => [493648.4120, 6028189.7730, 225.1840], 'T2' => [493702.1950, 6028262.3310, 226.9020],
        'T3' => [493711.8560, 6028345.1080, 229.4470], 'T4' => [493639.7210, 6028420.8640, 231.8650],
    ];

    /** The traverse: its set-ups with backsight and foresight, from KT07 oriented on KT01 to KT08 closed on KT04. */
    public const TRAVERSE = [
        'KT07' => ['KT01', 'T1'], 'T1' => ['KT07', 'T2'], 'T2' => ['T1', 'T3'], 'T3' => ['T2', 'T4'], 'T4' => ['T3', 'KT08'],
        'KT08' => ['T4', 'KT04'],
    ];

    /** What was done wrong on purpose, for tests and for finding. */
    public const BLUNDERS = [
        'direction' => [
            'station' => 'KT03', 'set' => '2', 'target' => 'KT07', 'degrees' => 22.0 / 3600.0,
            'why' => 'target not on the mark in the second round',
        ],
        'distance' => ['station' => 'KT05', 'set' => '1', 'target' => 'KT09', 'metres' => 0.0200, 'why' => 'wrong prism constant'],
        'height' => [
            'station' => 'KT10', 'set' => '1', 'target' => 'KT06', 'metres' => 0.100,
            'why' => 'target height booked 0.100 m too small',
        ],
        'vector' => ['from' => 'KT01', 'to' => 'KT08', 'metres' => 0.045, 'why' => 'antenna height read wrong by 45 mm'],
    ];

    /** Levelled lines, mark after mark; the benchmarks are bolts in rock. */
    public const LEVELLED = [
        'dam' => ['BOLT1', 'KT03', 'KT11', 'KT05', 'BOLT2'],
        'west' => ['BOLT2', 'KT10', 'KT02', 'KT12', 'BOLT1'],
    ];

    public const BENCHMARKS = ['BOLT1' => 231.4120, 'BOLT2' => 233.9055];

    /** A staff reading with two digits exchanged. */
    public const LEVEL_BLUNDER = ['run' => 'west', 'setup' => 5, 'metres' => 0.0270, 'why' => 'two digits of a fore reading exchanged'];

    /** The site grid of the works: clockwise rotation and scale from site to grid about its origin, and its height zero. */
    public const SITE = [
        'rotation' => 21.43, 'scale' => 0.999565, 'e' => 1000.0, 'n' => 5000.0, 'originE' => 493350.0,
        'originN' => 6028250.0, 'zero' => 150.0,
    ];

    /** The mark whose site coordinates were read off a wrong page of the book. */
    public const SITE_BLUNDER = ['mark' => 'KT06', 'e' => 0.060, 'n' => -0.030];

    /** Which marks each setup sights. Every setup has two rounds. */
    public const SIGHTS = [
        'KT02' => ['KT01', 'KT03', 'KT04', 'KT10', 'KT12', 'KT05'],
        'KT03' => ['KT01', 'KT02', 'KT05', 'KT07', 'KT11'],
        'KT05' => ['KT03', 'KT06', 'KT08', 'KT09', 'KT11', 'KT02'],
        'KT10' => ['KT02', 'KT04', 'KT06', 'KT05', 'KT12'],
        'KT11' => ['KT03', 'KT05', 'KT07', 'KT09'],
        'KT08' => ['KT05', 'KT06', 'KT09'],
    ];

    public const VECTORS = [
        ['KT01', 'KT04', 'S1'], ['KT01', 'KT06', 'S2'], ['KT01', 'KT08', 'S3'], ['KT01', 'KT07', 'S4'],
        ['KT04', 'KT09', 'S5'], ['KT04', 'KT07', 'S6'], ['KT06', 'KT09', 'S2'],
    ];

    public GridFrame $frame;

    public NetworkState $state;

    /** @var array<string, int> */
    public array $index;

    public function __construct()
    {
        $this->frame = new GridFrame(Registry::open()->horizontalSystem(self::SYSTEM));
        $marks = self::MARKS + self::ROAD;
        $this->index = array_flip(array_keys($marks));
        $this->state = new NetworkState(
            $this->frame, array_values(array_column($marks, 0)), array_values(array_column($marks, 1)),
            array_values(array_column($marks, 2)),
        );
    }

    public static function levelHeight(string $mark): float
    {
        return self::BENCHMARKS[$mark] ?? self::MARKS[$mark][2];
    }

    public function sight(string $from, string $to, float $hi, float $ht): Sight
    {
        $sight = new Sight($this->state, false);
        $sight->aim($this->index[$from], $this->index[$to], $hi, $ht);

        return $sight;
    }

    /** Height of the ground in the borrow pit: a tilted field with a bowl dug into it, five metres deep, walls by a crest line. */
    public static function ground(float $e, float $n): float
    {
        $base = 224.0 + 0.02 * ($e - 493500.0) + 0.012 * ($n - 6028000.0)
            + 0.35 * sin(($e - 493500.0) / 17.0) * cos(($n - 6028020.0) / 23.0);
        $r = hypot(($e - self::PIT_E) / self::PIT_A, ($n - self::PIT_N) / self::PIT_B);
        if ($r >= 1.0) {
            return $base;
        }

        return $base - min(5.0, 5.0 * (1.0 - $r) / 0.22);
    }

    /**
     * Real-time shots of the drainage were taken from a base that a receiver placed by itself: its position was wrong by so
     * much east, north and up. The base stood on KT05.
     */
    public const WRONG_BASE = ['mark' => 'KT05', 'east' => 0.842, 'north' => -0.613, 'up' => 1.237];

    public const PIT_E = 493620.0;
    public const PIT_N = 6028060.0;
    public const PIT_A = 62.0;
    public const PIT_B = 44.0;

    /** @return array{float, float, float} site coordinates of a place on the grid */
    public static function site(float $e, float $n, float $h): array
    {
        [
            'rotation' => $rotation, 'scale' => $scale, 'e' => $e0, 'n' => $n0, 'originE' => $x0, 'originN' => $y0,
            'zero' => $zero,
        ] = self::SITE;
        $c = cos(deg2rad($rotation));
        $s = sin(deg2rad($rotation));

        return [$e0 + ($c * ($e - $x0) - $s * ($n - $y0)) / $scale, $n0 + ($s * ($e - $x0) + $c * ($n - $y0)) / $scale, $h - $zero];
    }
}
