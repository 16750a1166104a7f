<?php

declare(strict_types=1);

namespace Mensura\Levelling;

/** A stretch of a run between the benchmarks it passes, or its end: metres. */
final readonly class Section
{
    public int $setupCount;
    public ?float $length;
    public float $difference;
    public ?float $misclosure;
    public ?float $allowable;
    public ?bool $passed;

    /** Sum of back less fore lengths; null when a sight length is missing. */
    public ?float $unbalance;

    public string $from;
    public string $to;

    /**
     * @param non-empty-list<LevelSetup> $setups
     * @param ?float           $given  difference of the known ends; 0 for a section that returns to its start
     */
    public function __construct(public string $run, public array $setups, public ?float $given, LevelSettings $settings)
    {
        $this->from = $setups[0]->backPoint;
        $this->to = $setups[\count($setups) - 1]->forePoint;
        $difference = $length = $unbalance = 0.0;
        foreach ($setups as $setup) {
            $difference += $setup->difference();
            $own = $setup->length();
            if (null === $own || null === $length) {
                $length = null;
            } else {
                $length += $own;
                $unbalance += (float) $setup->backLength - (float) $setup->foreLength;
            }
        }
        $this->setupCount = \count($setups);
        $this->difference = $difference;
        $this->length = $length;
        $this->unbalance = null === $length ? null : $unbalance;
        $this->misclosure = null === $given ? null : $difference - $given;
        $this->allowable = $settings->allowableOf($length, $this->setupCount);
        $this->passed = null === $this->misclosure || null === $this->allowable ? null : abs($this->misclosure) <= $this->allowable;
    }

    /**
     * @return array{run: string, from: string, to: string, setups: int, length: ?float, difference: float, given: ?float,
     *     misclosure: ?float, allowable: ?float, passed: ?bool, unbalance: ?float}
     */
    public function toArray(): array
    {
        return [
            'run' => $this->run, 'from' => $this->from, 'to' => $this->to, 'setups' => $this->setupCount, 'length' => $this->length,
            'difference' => $this->difference, 'given' => $this->given, 'misclosure' => $this->misclosure, 'allowable' => $this->allowable,
            'passed' => $this->passed, 'unbalance' => $this->unbalance,
        ];
    }
}
