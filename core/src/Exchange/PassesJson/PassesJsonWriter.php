<?php

declare(strict_types=1);

namespace Mensura\Exchange\PassesJson;

use Mensura\Passes\Correction;
use Mensura\Passes\PassComparison;
use Mensura\Passes\PassesResult;
use Mensura\Passes\PassSet;
use Mensura\Passes\Station;

/** Corrected passes as mensura-passes-result/1. */
final class PassesJsonWriter
{
    private const AXES = ['e', 'n', 'h'];

    /**
     * @param list<?array{file: string, from: string, method: string, number: int}> $versions that were written, by pass
     *
     * @return array<string, mixed>
     */
    public static function document(PassSet $set, PassesResult $result, array $versions): array
    {
        $passes = $warnings = [];
        foreach ($set->passes as $p => $pass) {
            $compared = $result->toReference[$p];
            if (null !== $compared && PassComparison::CORRECTED !== $compared->status) {
                $warnings[] = \sprintf('pass %s: %s: %s', $pass->id, $compared->status, $compared->reason);
            }
            if ($p === $set->reference && [0.0, 0.0, 0.0] !== $pass->preShift) {
                $warnings[] = \sprintf('pass %s is the reference: its pre-shift counts for nothing', $pass->id);
            }
            $passes[] = [
                'id' => $pass->id, 'method' => $result->method($p), 'correction' => self::knots($result->correction($p)),
                'toControl' => ['knots' => self::knots($result->toControl[$p]->correction)],
                'toReference' => null === $compared ? null : self::compared($compared), 'version' => $versions[$p] ?? null,
            ];
        }
        $sightings = [];
        $off = ['control' => [], 'check' => []];
        foreach ($set->sightings as $k => $sighting) {
            $role = $sighting->isControl ? 'control' : 'check';
            $before = $sighting->before();
            $after = $sighting->off($result->correction($sighting->pass)->at($sighting->time));
            $others = $sighting->isControl ? $result->toControl[$sighting->pass]->without($k) : null;
            $sightings[] = [
                'target' => $sighting->target, 'pass' => $set->passes[$sighting->pass]->id, 'role' => $role, 'time' => $sighting->time,
                'before' => self::named($before), 'after' => self::named($after),
                'without' => null === $others ? null : self::named($sighting->off($others->at($sighting->time))),
            ];
            $off[$role]['before'][] = $before;
            $off[$role]['after'][] = $after;
        }

        return [
            'format' => 'mensura-passes-result/1', 'reference' => $set->passes[$set->reference]->id, 'passes' => $passes,
            'sightings' => $sightings,
            'control' => self::rms($off['control']), 'check' => self::rms($off['check']), 'warnings' => $warnings,
        ];
    }

    /** @return array<string, mixed> */
    private static function compared(PassComparison $c): array
    {
        return [
            'status' => $c->status, 'reason' => $c->reason, 'rmsBefore' => $c->rmsBefore, 'rmsAfter' => $c->rmsAfter,
            'stations' => array_map(static fn (Station $s): array => [
                'time' => $s->time, ...array_combine(self::AXES, $s->place), 'used' => $s->isUsed(), 'reason' => $s->reason,
                'shift' => self::named($s->shift), 'sd' => self::named($s->sd), 'points' => $s->points, 'rmsBefore' => $s->rmsBefore,
                'rmsAfter' => $s->rmsAfter,
            ], $c->stations),
        ];
    }

    /** @return list<array<string, float>> */
    private static function knots(Correction $correction): array
    {
        $knot = static fn (float $t, array $s): array => ['time' => $t] + array_combine(self::AXES, $s);

        return array_map($knot, $correction->times, $correction->shifts);
    }

    /**
     * @param ?array{float, float, float} $values
     *
     * @return ?array<string, float>
     */
    private static function named(?array $values): ?array
    {
        return null === $values ? null : array_combine(self::AXES, $values);
    }

    /**
     * @param array<string, list<array{float, float, float}>> $off
     *
     * @return ?array<string, array<string, float>>
     */
    private static function rms(array $off): ?array
    {
        $squares = static fn (array $values): float => array_sum(array_map(static fn (float $v): float => $v * $v, $values));
        $rms = static fn (array $values): float => sqrt($squares($values) / \count($values));
        $of = static fn (array $all): array => [
            'e' => $rms(array_column($all, 0)), 'n' => $rms(array_column($all, 1)), 'h' => $rms(array_column($all, 2)),
        ];

        return [] === $off ? null : array_map($of, $off);
    }
}
