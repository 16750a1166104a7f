<?php

declare(strict_types=1);

namespace Mensura\Exchange\LevelJson;

use Mensura\Exchange\Json\JsonObject;
use Mensura\Fault\UnusableInput;
use Mensura\Levelling\LevelSettings;
use Mensura\Levelling\Pattern;
use Mensura\Levelling\Run;
use Mensura\Levelling\Sight;

/** Reads a levelling book, mensura-level/1. Every fault names its place as a JSON path. */
final class LevelJsonReader
{
    private const HIGHEST = 1e5;
    private const LONGEST_STAFF = 100.0;
    private const LONGEST_SIGHT = 10000.0;

    /**
     * @return array{LevelSettings, list<array{string, float}>, list<Run>}
     *
     * @throws UnusableInput
     */
    public function read(string $json): array
    {
        $document = JsonObject::document($json, 'mensura-level/1');
        $benchmarks = $named = [];
        foreach ($document->has('benchmarks') ? $document->objects('benchmarks', true) : [] as $row) {
            $id = $row->name('id');
            if (isset($named["p$id"])) {
                throw $row->fault('id', \sprintf('benchmark "%s" is there twice', $id));
            }
            $named["p$id"] = true;
            $benchmarks[] = [$id, $row->within('h', -self::HIGHEST, self::HIGHEST, 'm') ?? $row->required('h')];
        }
        $runs = $ids = [];
        foreach ($document->objects('runs') as $row) {
            $id = $row->name('id');
            if (isset($ids["r$id"])) {
                throw $row->fault('id', \sprintf('run "%s" is there twice', $id));
            }
            $ids["r$id"] = true;
            $pattern = $row->choice('pattern', array_map(static fn (Pattern $p): string => $p->value, Pattern::cases()))
                ?? throw $row->fault('pattern', \sprintf('of run %s is missing; it is "BF", "BFFB" or "BBFF"', $id));
            $sights = [];
            foreach ($row->objects('rows') as $sight) {
                $sights[] = $this->sight($sight, $id);
            }
            $runs[] = new Run($id, Pattern::from($pattern), $sights);
        }

        return [$this->settings($document->object('settings')), $benchmarks, $runs];
    }

    private function sight(JsonObject $row, string $run): Sight
    {
        $kind = $row->choice('kind', [Sight::BACK, Sight::FORE, Sight::INTERMEDIATE])
            ?? throw $row->fault('kind', \sprintf('of a row of run %s is missing; it is "back", "fore" or "intermediate"', $run));
        $distance = $row->positive('distance');
        if (null !== $distance && $distance > self::LONGEST_SIGHT) {
            throw $row->fault('distance', \sprintf('a level does not see a staff over %s m', $distance));
        }

        return new Sight(
            $kind, $row->name('point'),
            $row->within('reading', -self::LONGEST_STAFF, self::LONGEST_STAFF, 'm') ?? $row->required('reading'), $distance,
        );
    }

    private function settings(JsonObject $s): LevelSettings
    {
        $allowable = $s->object('allowable');
        $staff = $s->object('staff');
        $repeat = $s->number('repeatLimit');
        if (null !== $repeat && $repeat < 0.0) {
            throw $s->fault('repeatLimit', 'must not be negative');
        }

        return new LevelSettings(
            $allowable->positive('k'),
            $allowable->choice('per', [LevelSettings::PER_KM, LevelSettings::PER_SETUP]) ?? LevelSettings::PER_KM,
            $s->choice('distribute', [LevelSettings::BY_LENGTH, LevelSettings::BY_SETUP]) ?? LevelSettings::BY_LENGTH,
            $s->boolean('curvature'), $s->within('refraction', -20.0, 20.0) ?? 0.13, $s->within('earthRadius', 1e6, 1e8, 'm') ?? 6371000.0,
            $repeat, $staff->within('scalePpm', -1e5, 1e5, 'parts per million') ?? 0.0,
            $staff->within('expansion', -1e-2, 1e-2, 'per kelvin') ?? 0.0,
            $staff->within('temperature', -90.0, 70.0, 'degrees Celsius') ?? 20.0,
            $staff->within('referenceTemperature', -90.0, 70.0, 'degrees Celsius') ?? 20.0,
        );
    }
}
