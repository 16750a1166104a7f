<?php

declare(strict_types=1);

namespace Mensura\Network\Suspects;

/** One cause that can be put into the equations of a network as one to three further parameters. */
final readonly class Hypothesis
{
    /**
     * @param array<string, string|int|null> $names   what it is about: from, set, to, station, end, index
     * @param list<int>                      $touched observations
     * @param float                          $unit    of the estimate, in the unit of the equations
     * @param list<string>                   $parts   names of the components of a length
     * @param int                            $station of a control mark
     * @param list<int>                      $components of its coordinates that are given
     * @param ?float                         $recorded the value as recorded, where there is one for all
     */
    public function __construct(
        public string $cause,
        public array $names,
        public Form $form,
        public array $touched,
        public float $unit = 1.0,
        public array $parts = [],
        public int $station = -1,
        public array $components = [],
        public ?float $recorded = null,
    ) {
    }
}
