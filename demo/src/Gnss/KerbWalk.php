<?php

declare(strict_types=1);

namespace Demo\Gnss;

use Demo\TruthModel;

/** A rover with carriers on a pole, carried along a new kerb and held still at every joint: stop and go, beside a base at its own rate. */
final class KerbWalk
{
    public const BASE = 'kt07-1500.31o';
    public const ROVER = 'kerb-1501.31o';
    /** Seconds after the sessions' noon. */
    private const BEGIN = 10800;
    private const INTERVAL = 2.0;
    private const HEIGHT = 1.8;
    /** Epochs of the beginning, of each stop and of each way between two. */
    private const START = 60;
    private const STOP = 12;
    private const WALK = 8;

    /** Joints of the kerb: easting, northing, height. */
    public const JOINTS = [
        [493690.40, 6028254.10, 226.610], [493697.10, 6028263.40, 226.840], [493701.90, 6028273.80, 227.090],
        [493704.70, 6028284.90, 227.360], [493705.60, 6028296.30, 227.640], [493705.20, 6028307.80, 227.930],
        [493704.40, 6028319.20, 228.230], [493703.60, 6028330.70, 228.540], [493702.80, 6028342.20, 228.860],
        [493699.60, 6028353.20, 229.190],
    ];

    public function __construct(private readonly TruthModel $truth)
    {
    }

    /** @return array<string, string> contents by file name */
    public function files(): array
    {
        $path = [];
        foreach (self::JOINTS as $i => $joint) {
            $last = self::JOINTS[$i - 1] ?? null;
            for ($k = 1; null !== $last && $k < self::WALK; ++$k) {
                $part = $k / self::WALK;
                $path[] = array_map(static fn (float $a, float $b): float => $a + $part * ($b - $a), $last, $joint);
            }
            array_push($path, ...array_fill(0, null === $last ? self::START : self::STOP, $joint));
        }
        $antennas = array_map(fn (array $p): array => $this->geocentric($p[0], $p[1], $p[2] + self::HEIGHT), $path);
        $sky = new Sky(TruthModel::SEED, Sessions::WEEK, 43200.0, 'GE', TruthModel::SEED + 8);
        [$e, $n, $h] = TruthModel::MARKS['KT07'];
        $base = $this->geocentric($e, $n, $h + 1.532);
        $rough = $this->geocentric($e + 1.1, $n - 1.7, $h + 2.9);

        return [
            self::BASE => $sky->observations(new Receiver(
                'KT07', $base, \count($path) + 60, self::INTERVAL, -1e-5, Receiver::EVERYTHING, begin: self::BEGIN, height: 1.532,
                header: $rough,
            )),
            self::ROVER => $sky->observations(new Receiver(
                'KERB', static fn (int $k): array => $antennas[$k], \count($path), self::INTERVAL, 2e-5, Receiver::EVERYTHING,
                begin: self::BEGIN + 60.0, height: self::HEIGHT, markerType: 'HUMAN',
            )),
        ];
    }

    /** @return array{float, float, float} */
    private function geocentric(float $e, float $n, float $h): array
    {
        return $this->truth->frame->geometry($e, $n, $h)['position'];
    }
}
