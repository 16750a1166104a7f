<?php

declare(strict_types=1);

namespace Mensura\Levelling;

/** A closed chain of whole runs between junctions: metres. */
final readonly class Loop
{
    public ?bool $passed;

    /**
     * @param list<string> $runs       in the order they are passed
     * @param float        $misclosure in the first run's sense
     * @param ?float       $length     null when a sight length is missing
     */
    public function __construct(
        public array $runs,
        public float $misclosure,
        public ?float $length,
        public int $setups,
        public ?float $allowable,
    ) {
        $this->passed = null === $allowable ? null : abs($misclosure) <= $allowable;
    }

    /** @return array{runs: list<string>, misclosure: float, length: ?float, setups: int, allowable: ?float, passed: ?bool} */
    public function toArray(): array
    {
        return [
            'runs' => $this->runs, 'misclosure' => $this->misclosure, 'length' => $this->length, 'setups' => $this->setups,
            'allowable' => $this->allowable, 'passed' => $this->passed,
        ];
    }
}
