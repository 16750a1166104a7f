<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/** A closed chain of baselines and what its sum misses nought by. Metres. */
final readonly class VectorLoop
{
    /**
     * @param list<string>               $marks    in order
     * @param list<int>                  $vectors  which make it
     * @param list<string>               $sessions of them; those of one session alone close by themselves
     * @param array{float, float, float} $closure  east, north, up
     */
    public function __construct(
        public array $marks, public array $vectors, public array $sessions, public float $length, public array $closure,
        public float $allowed,
    ) {
    }

    public function size(): float
    {
        return sqrt($this->closure[0] ** 2 + $this->closure[1] ** 2 + $this->closure[2] ** 2);
    }

    /** Baselines that were all recorded at once close whatever they are worth. */
    public function isIndependent(): bool
    {
        return \count($this->sessions) > 1;
    }
}
