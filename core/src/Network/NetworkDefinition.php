<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Fault\UnusableInput;
use Mensura\Observation\Observation;
use Mensura\Observation\Station;

/** Everything an adjustment needs, consistent: station names are unique and every observation ends on one. */
final readonly class NetworkDefinition
{
    /** @var array<string, int> */
    public array $stationIndex;

    /**
     * @param list<Station>     $stations
     * @param list<Observation> $observations
     * @param ?list<string>     $sources where each observation came from, for messages
     *
     * @throws UnusableInput
     */
    public function __construct(
        public Frame $frame,
        public Settings $settings,
        public array $stations,
        public array $observations,
        public ?array $sources = null,
    ) {
        $index = [];
        foreach ($stations as $i => $station) {
            if (isset($index[$station->id])) {
                throw new UnusableInput("stations[$i].id", \sprintf('station "%s" is there twice; keep one of them', $station->id));
            }
            $index[$station->id] = $i;
        }
        foreach ($observations as $i => $observation) {
            $ends = [$observation->from, $observation->to];
            if (null !== $observation->back) {
                $ends[] = $observation->back;
            }
            foreach ($ends as $end) {
                if (!isset($index[$end])) {
                    throw new UnusableInput($this->source($i), \sprintf(
                        'a %s refers to station "%s", which is not in the list of stations; add it or correct the name',
                        $observation->kind->value,
                        $end,
                    ));
                }
            }
            if (\count(array_unique($ends)) < \count($ends)) {
                throw new UnusableInput(
                    $this->source($i),
                    \sprintf('a %s needs different stations at its ends, not "%s" twice', $observation->kind->value, $observation->to),
                );
            }
        }
        $this->stationIndex = $index;
    }

    public function source(int $observation): string
    {
        return $this->sources[$observation] ?? "observations[$observation]";
    }
}
