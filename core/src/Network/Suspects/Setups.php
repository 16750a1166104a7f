<?php

declare(strict_types=1);

namespace Mensura\Network\Suspects;

use Mensura\Network\ObservationTable;
use Mensura\Network\SolvedNetwork;

/**
 * The observations in use, by setup: those of one station and set. Where a station has a single named set, its observations
 * without one belong to it.
 */
final class Setups
{
    /** @var list<array{from: string, set: ?string, observations: list<int>}> */
    public array $list = [];

    public function __construct(SolvedNetwork $solved)
    {
        $named = [];
        foreach ($solved->network->observations as $o) {
            if (null !== $o->set) {
                $named["f$o->from"][$o->set] = true;
            }
        }
        $setups = [];
        foreach ($solved->network->observations as $i => $o) {
            $kind = $solved->structure->table->kind[$i];
            if (!$solved->used[$i][0] || $kind >= ObservationTable::HEIGHT_DIFFERENCE) {
                continue;
            }
            $sets = $named["f$o->from"] ?? [];
            $set = $o->set ?? (1 === \count($sets) ? (string) array_key_first($sets) : null);
            $key = "f$o->from\0".(null === $set ? '' : "s$set");
            $setups[$key] ??= ['from' => $o->from, 'set' => $set, 'observations' => []];
            $setups[$key]['observations'][] = $i;
        }
        $this->list = array_values($setups);
    }
}
