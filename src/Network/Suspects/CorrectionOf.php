<?php

declare(strict_types=1);

namespace App\Network\Suspects;

use App\Survey\Correction;
use Mensura\Network\Suspects\Suspect;
use Mensura\Observation\Observation;

/**
 * What accepting a suspect changes in the recorded observations.
 *
 * @phpstan-import-type Change from Correction
 */
final class CorrectionOf
{
    /**
     * @param list<Observation> $observations of the network that was searched
     * @param list<int>         $ids          their numbers in the project
     *
     * @return list<Change> nothing for what lies in no observation: a mark's coordinates, a setup beside its mark
     */
    public static function changes(Suspect $s, array $observations, array $ids): array
    {
        $changes = [];
        if ([] !== $s->renamed) {
            foreach ($s->renamed as $i => [$to, $targetHeight]) {
                $changes[] = ['id' => $ids[$i], 'field' => 'to', 'to' => $to];
                $by = $targetHeight - $observations[$i]->targetHeight;
                if (abs($by) > 1e-9 && !$observations[$i]->kind->isPlanOnly()) {
                    $changes[] = ['id' => $ids[$i], 'field' => 'ht', 'add' => $by];
                }
            }

            return $changes;
        }
        if ('vector' === $s->cause || 'antenna-height' === $s->cause) {
            foreach (['dx' => 'v1', 'dy' => 'v2', 'dz' => 'v3'] as $part => $field) {
                $changes[] = ['id' => $ids[$s->touched[0]], 'field' => $field, 'add' => $s->components[$part]];
            }

            return $changes;
        }
        if (null === $s->change) {
            return [];
        }
        $field = match ($s->cause) {
            'target-height' => 'ht',
            'instrument-height' => 'hi',
            default => 'v1',
        };
        foreach ($s->touched as $i) {
            $by = 'distance-scale' === $s->cause ? 1e-6 * $s->change * (float) $observations[$i]->value : $s->change;
            $changes[] = ['id' => $ids[$i], 'field' => $field, 'add' => $by];
        }

        return $changes;
    }

    /**
     * The observations with the changes in them.
     *
     * @param list<Observation> $observations
     * @param list<int>         $ids
     * @param list<Change>      $changes
     *
     * @return list<Observation>
     */
    public static function applied(array $observations, array $ids, array $changes): array
    {
        $index = array_flip($ids);
        foreach ($changes as $change) {
            $i = $index[$change['id']];
            $o = $observations[$i];
            $add = static fn (string $field, ?float $value): ?float => null === $value ? null
                : $value + ($change['field'] === $field ? $change['add'] ?? 0.0 : 0.0);
            $components = $o->components;
            if (null !== $components) {
                foreach (['v1', 'v2', 'v3'] as $c => $field) {
                    $components[$c] = (float) $add($field, $components[$c]);
                }
            }
            $observations[$i] = $o->with([
                'to' => $change['to'] ?? $o->to, 'value' => $add('v1', $o->value),
                'instrumentHeight' => (float) $add('hi', $o->instrumentHeight),
                'targetHeight' => (float) $add('ht', $o->targetHeight), 'components' => $components,
            ]);
        }

        return array_values($observations);
    }
}
