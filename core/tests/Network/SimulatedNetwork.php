<?php

declare(strict_types=1);

namespace Mensura\Tests\Network;

use Mensura\Network\NetworkDefinition;
use Mensura\Network\PlaneFrame;
use Mensura\Network\Settings;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind as Kind;
use Mensura\Observation\Station;

/**
 * A simulated town network, seeded: setups in two rounds, levelled lines, vectors, held control, and at most one planted
 * cause. Its geometry and errors come from formulas of its own; only the size of a cause is asked for from outside.
 */
final class SimulatedNetwork
{
    private const DIRECTION = 0.0005;
    private const ZENITH = 0.0006;
    private const DISTANCE = 0.002;
    private const LEVEL = 0.0007;
    private const VECTOR = [0.005, 0.005, 0.008];

    /** @var list<array{string, float, float, float, bool}> name, e, n, h, held */
    public array $marks = [];

    /** @var list<Observation> */
    public array $observations = [];

    /** @var array<string, float> shifts of recorded control, by name */
    private array $controlShift = [];

    public function __construct(private readonly int $seed, int $columns = 4, int $rows = 3)
    {
        mt_srand($seed);
        $count = $columns * $rows;
        for ($i = 0; $i < $count; ++$i) {
            $this->marks[] = [
                "P$i", 1000.0 + ($i % $columns) * 85.0 + self::uniform(-22, 22),
                4000.0 + intdiv($i, $columns) * 80.0 + self::uniform(-22, 22),
                120.0 + self::uniform(-9, 9), false,
            ];
        }
        foreach ([0, $columns - 1, $count - $columns, $count - 1, intdiv($count, 2)] as $i) {
            $this->marks[$i][4] = true;
        }
        foreach ($this->marks as $i => [$from]) {
            if (self::uniform(0, 1) < 0.75) {
                $this->setup($i, "$from/1");
            }
        }
        for ($i = 0; $i + 1 < $count; ++$i) {
            if (self::uniform(0, 1) < 0.7) {
                $value = $this->marks[$i + 1][3] - $this->marks[$i][3] + self::LEVEL * self::normal();
                $this->observations[] = new Observation(Kind::HeightDifference, "P$i", 'P'.($i + 1), round($value, 5), self::LEVEL);
            }
        }
        for ($i = 0; $i < $count; ++$i) {
            $j = ($i + $columns + 1) % $count;
            if (self::uniform(0, 1) < 0.5) {
                $components = $covariance = [];
                for ($c = 0; $c < 3; ++$c) {
                    $components[] = round($this->marks[$j][$c + 1] - $this->marks[$i][$c + 1] + self::VECTOR[$c] * self::normal(), 5);
                    $covariance[] = [0.0, 0.0, 0.0];
                    $covariance[$c][$c] = self::VECTOR[$c] ** 2;
                }
                $this->observations[] = new Observation(
                    Kind::Vector, "P$i", "P$j", null, components: [$components[0], $components[1], $components[2]], covariance: $covariance,
                );
            }
        }
    }

    private function setup(int $i, string $set): void
    {
        [$from, $e, $n, $h] = $this->marks[$i];
        $targets = [];
        foreach ($this->marks as $j => $mark) {
            if ($j !== $i && hypot($mark[1] - $e, $mark[2] - $n) < 165.0) {
                $targets[$j] = round(1.3 + 0.005 * mt_rand(0, 90), 3);
            }
        }
        $turn = self::uniform(0, 360);
        $hi = round(1.4 + 0.001 * mt_rand(0, 300), 3);
        for ($round = 0; $round < 2; ++$round) {
            foreach ($targets as $j => $ht) {
                $de = $this->marks[$j][1] - $e;
                $dn = $this->marks[$j][2] - $n;
                $up = $this->marks[$j][3] + $ht - $h - $hi;
                $plan = hypot($de, $dn);
                $to = $this->marks[$j][0];
                $direction = fmod(rad2deg(atan2($de, $dn)) - $turn + self::DIRECTION * self::normal() + 720.0, 360.0);
                $zenith = rad2deg(atan2($plan, $up)) + self::ZENITH * self::normal();
                $slope = hypot($plan, $up) + self::DISTANCE * self::normal();
                $this->observations[] = new Observation(Kind::Direction, $from, $to, round($direction, 5), self::DIRECTION, $set);
                $this->observations[] = new Observation(
                    Kind::Zenith, $from, $to, round($zenith, 5), self::ZENITH, $set, instrumentHeight: $hi, targetHeight: $ht,
                );
                $this->observations[] = new Observation(
                    Kind::SlopeDistance, $from, $to, round($slope, 3), self::DISTANCE, $set, instrumentHeight: $hi, targetHeight: $ht,
                );
            }
        }
    }

    /**
     * What was recorded in place of an observation, given what should have been written.
     *
     * @param \Closure(Observation, int): Observation $recorded
     */
    public function record(\Closure $recorded): void
    {
        foreach ($this->observations as $i => $o) {
            $this->observations[$i] = $recorded($o, $i);
        }
    }

    /** @param array<string, float|string|null> $changes by name of the constructor's argument */
    public static function changed(Observation $o, array $changes): Observation
    {
        return new Observation(
            $o->kind, $o->from, (string) ($changes['to'] ?? $o->to),
            isset($changes['value']) ? (float) $changes['value'] : $o->value, $o->sd,
            $o->set, $o->back, (float) ($changes['hi'] ?? $o->instrumentHeight),
            (float) ($changes['ht'] ?? $o->targetHeight), $o->components,
            $o->covariance, $o->used,
        );
    }

    public function moveControl(string $name, float $de, float $dn, float $dh): void
    {
        $this->controlShift = ['e' => $de, 'n' => $dn, 'h' => $dh];
        $this->shifted = $name;
    }

    private string $shifted = '';

    public function definition(): NetworkDefinition
    {
        $stations = [];
        mt_srand($this->seed + 7919);
        foreach ($this->marks as [$name, $e, $n, $h, $held]) {
            $shift = $name === $this->shifted ? $this->controlShift : ['e' => 0.0, 'n' => 0.0, 'h' => 0.0];
            $stations[] = $held
                ? new Station($name, $e + $shift['e'], $n + $shift['n'], $h + $shift['h'], [true, true, true])
                : new Station(
                    $name, round($e + 0.02 * self::normal(), 2), round($n + 0.02 * self::normal(), 2),
                    round($h + 0.02 * self::normal(), 2),
                );
        }

        return new NetworkDefinition(new PlaneFrame(), new Settings(), $stations, $this->observations);
    }

    public static function uniform(float $from, float $to): float
    {
        return $from + ($to - $from) * mt_rand() / mt_getrandmax();
    }

    public static function normal(): float
    {
        return sqrt(-2.0 * log((mt_rand() + 1.0) / (mt_getrandmax() + 1.0))) * cos(2.0 * \M_PI * mt_rand() / mt_getrandmax());
    }
}
