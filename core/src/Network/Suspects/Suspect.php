<?php

declare(strict_types=1);

namespace Mensura\Network\Suspects;

/** A cause that could explain what does not fit, with what speaks for it. */
final readonly class Suspect
{
    /**
     * @param array<string, string|int|null> $names     from, set, to, other, station, end, index: what it is about
     * @param ?float                         $estimate  what to add to the recorded value: metres, degrees, parts per million
     * @param ?float                         $sd        of the estimate; null where nothing is estimated
     * @param float                          $statistic estimate over its standard deviation, or the root of the fall of the sum of squares
     * @param float                          $explains  root of the fall of the sum of squares, no more than the
     *     statistic: what it is ranked by
     * @param array<string, float>           $components of a length
     * @param int                            $parameters how many values were estimated
     * @param list<int>                      $touched   observations it changes
     * @param array<int, array{string, float}> $renamed per observation its real target and the target height that goes with it
     * @param ?float                         $change    what to add to recorded values when it is accepted
     */
    public function __construct(
        public string $cause,
        public array $names,
        public ?float $estimate,
        public ?float $sd,
        public float $statistic,
        public float $explains,
        public ?float $varianceFactorAfter,
        public ?string $suggests,
        public array $components,
        public int $parameters,
        public array $touched,
        public ?float $change,
        public array $renamed = [],
    ) {
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['cause' => $this->cause] + $this->names + $this->components + [
            'estimate' => $this->estimate, 'sd' => $this->sd, 'statistic' => $this->statistic,
            'varianceFactorAfter' => $this->varianceFactorAfter, 'suggests' => $this->suggests,
        ];
    }
}
