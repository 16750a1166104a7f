<?php

declare(strict_types=1);

namespace App\Network\Reorient;

use App\Network\NetworkAssembly;
use App\Network\NetworkSettings;
use App\Network\View\SetupTurnView;
use App\Network\View\ShiftView;
use App\Project\Project;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;
use Mensura\Network\Adjustment;
use Mensura\Network\AdjustmentResult;
use Mensura\Network\NetworkDefinition;
use Mensura\Observation\ObservationKind;
use Mensura\Observation\Station;

/** Works out where set-ups and everything that hangs on them go when control gets other values. */
final readonly class Reorientation
{
    /** Below this a point does not move, metres. */
    private const STAYS = 0.00005;

    public function __construct(private NetworkAssembly $assembly, private PointRepository $points)
    {
    }

    /**
     * @param list<array{point: string, e: ?float, n: ?float, h: ?float}> $control new values; null keeps the old one
     * @param ?\Closure(string, float): void                             $progress
     *
     * @return array{list<SetupTurnView>, list<ShiftView>, array<string, array{float, float, float}>} set-ups; moves of points
     *     from where the project has them; new places
     *
     * @throws UnusableInput
     */
    public function of(Project $project, array $control, ?\Closure $progress = null): array
    {
        [$network] = $this->assembly->of($project);
        $values = array_column($control, null, 'point');
        $stations = [];
        foreach ($network->stations as $station) {
            $new = $values[$station->id] ?? null;
            unset($values[$station->id]);
            $stations[] = null === $new ? $station : new Station(
                $station->id, $new['e'] ?? $station->e, $new['n'] ?? $station->n, $new['h'] ?? $station->h, $station->fixed, $station->sd,
            );
        }
        if ([] !== $values) {
            throw new UnusableInput('/control', \sprintf('%s is no station of this network', array_key_first($values)));
        }
        $free = NetworkSettings::of($project)->free;
        $before = (new Adjustment($network, $free, false, $progress))->run();
        $after = (new Adjustment(
            new NetworkDefinition($network->frame, $network->settings, $stations, $network->observations, $network->sources),
            $free,
            false,
            $progress,
        ))->run();
        if (!$after->converged) {
            throw new UnusableInput(
                '/control',
                'with these values the network does not converge; are east and north exchanged, or is a digit wrong?',
            );
        }
        $places = [];
        foreach ($after->stations as $s) {
            if (null !== $s['e'] && null !== $s['n'] && null !== $s['h']) {
                $places[$s['id']] = [$s['e'], $s['n'], $s['h']];
            }
        }

        return [self::turns($network, $before, $after), $this->moves($project, $places), $places];
    }

    /** @return list<SetupTurnView> */
    private static function turns(NetworkDefinition $network, AdjustmentResult $before, AdjustmentResult $after): array
    {
        $sighted = [];
        foreach ($network->observations as $o) {
            if (ObservationKind::Vector !== $o->kind && ObservationKind::HeightDifference !== $o->kind) {
                $sighted[$o->from][$o->to] = true;
            }
        }
        $old = array_column($before->stations, null, 'id');
        $new = array_column($after->stations, null, 'id');
        $views = [];
        foreach ($sighted as $from => $targets) {
            $pairs = [];
            foreach ([$from, ...array_map(strval(...), array_keys($targets))] as $name) {
                if (null !== $old[$name]['e'] && null !== $new[$name]['e']) {
                    $pairs[] = [(float) $old[$name]['e'], (float) $old[$name]['n'], (float) $new[$name]['e'], (float) $new[$name]['n']];
                }
            }
            if (\count($pairs) < 2) {
                continue;
            }
            [$rotation, $scale] = self::similarity($pairs);
            $views[] = new SetupTurnView(
                (string) $from, (float) $new[$from]['e'] - (float) $old[$from]['e'], (float) $new[$from]['n'] - (float) $old[$from]['n'],
                (float) $new[$from]['h'] - (float) $old[$from]['h'], $rotation, $scale, \count($pairs) - 1,
            );
        }

        return $views;
    }

    /**
     * Rotation (degrees, clockwise) and change of scale (parts per million) of the similarity that fits best.
     *
     * @param list<array{float, float, float, float}> $pairs old e, n; new e, n
     *
     * @return array{float, float}
     */
    private static function similarity(array $pairs): array
    {
        $mean = [0.0, 0.0, 0.0, 0.0];
        foreach ($pairs as $pair) {
            foreach ($pair as $k => $value) {
                $mean[$k] += $value / \count($pairs);
            }
        }
        $a = $b = $square = 0.0;
        foreach ($pairs as [$e, $n, $f, $m]) {
            $e -= $mean[0];
            $n -= $mean[1];
            $f -= $mean[2];
            $m -= $mean[3];
            $a += $e * $f + $n * $m;
            $b += $n * $f - $e * $m;
            $square += $e * $e + $n * $n;
        }

        return [rad2deg(atan2($b, $a)), $square > 0.0 ? 1e6 * (hypot($a, $b) / $square - 1.0) : 0.0];
    }

    /**
     * @param array<string, array{float, float, float}> $places
     *
     * @return list<ShiftView> largest first
     */
    private function moves(Project $project, array $places): array
    {
        $moves = [];
        foreach ($this->points->allNamed($project, array_map(strval(...), array_keys($places))) as $name => $p) {
            [$e, $n, $h] = $places[$name];
            if (null === $p->e || null === $p->n) {
                continue;
            }
            $move = new ShiftView((string) $name, $e - $p->e, $n - $p->n, null === $p->h ? 0.0 : $h - $p->h);
            if (self::length($move) > self::STAYS) {
                $moves[] = $move;
            }
        }
        usort($moves, static fn (ShiftView $a, ShiftView $b): int => self::length($b) <=> self::length($a));

        return $moves;
    }

    private static function length(ShiftView $s): float
    {
        return sqrt($s->e ** 2 + $s->n ** 2 + $s->h ** 2);
    }
}
