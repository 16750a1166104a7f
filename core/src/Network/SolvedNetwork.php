<?php

declare(strict_types=1);

namespace Mensura\Network;

/** A network with its solution, and what it was solved with. */
final readonly class SolvedNetwork
{
    /**
     * @param array<int, array{bool, bool, bool}> $used
     * @param list<?float>                        $given e, n, h per station, as given
     * @param array<int, true>                    $held  unknowns that give a free network a datum to compute in
     */
    public function __construct(
        public NetworkDefinition $network,
        public NetworkStructure $structure,
        public NetworkState $state,
        public array $used,
        public Weights $weights,
        public array $given,
        public array $held,
        public bool $free,
        public AdjustmentResult $result,
    ) {
    }

    /** @return list<array{int, int, float}> weighted coordinates: station, component, standard deviation */
    public function weightedCoordinates(): array
    {
        $list = [];
        foreach ($this->free ? [] : $this->network->stations as $s => $station) {
            foreach ($station->sd as $c => $sd) {
                if (null !== $sd && !$station->fixed[$c] && $this->structure->coordinateParameter[3 * $s + $c] >= 0) {
                    $list[] = [$s, $c, $sd];
                }
            }
        }

        return $list;
    }
}
