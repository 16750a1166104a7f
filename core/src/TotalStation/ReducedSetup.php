<?php

declare(strict_types=1);

namespace Mensura\TotalStation;

/** A setup reduced: means of faces and rounds, and what they say of the instrument and the observer. Degrees. */
final readonly class ReducedSetup
{
    /**
     * @param ?float              $collimation half the difference of the faces, on the horizon; null without a face pair
     * @param ?float              $index       of the vertical circle; null without a face pair
     * @param ?float              $sdDirection of one direction measured in both faces, from the spread of rounds; null without redundancy
     * @param ?float              $sdZenith    likewise
     * @param ?float              $spread      of one sight as it was taken, faces paired or not, from the rounds
     * @param list<ReducedTarget> $targets     in order of first appearance
     * @param list<string>        $warnings
     */
    public function __construct(
        public string $id,
        public string $station,
        public int $rounds,
        public ?float $collimation,
        public ?float $index,
        public ?float $sdDirection,
        public ?float $sdZenith,
        public float $ppm,
        public ?float $spread,
        public array $targets,
        public array $warnings,
    ) {
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'id' => $this->id, 'station' => $this->station, 'rounds' => $this->rounds, 'collimation' => $this->collimation,
            'index' => $this->index, 'sdDirection' => $this->sdDirection, 'sdZenith' => $this->sdZenith, 'ppm' => $this->ppm,
            'targets' => array_map(static fn (ReducedTarget $t): array => $t->toArray(), $this->targets),
        ];
    }
}
