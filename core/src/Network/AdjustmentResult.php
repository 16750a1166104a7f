<?php

declare(strict_types=1);

namespace Mensura\Network;

/**
 * The outcome of an adjustment, in the units of the batch contract: metres, degrees for angular observations.
 *
 * @phpstan-type StationRow array{
 *     id: string, e: ?float, n: ?float, h: ?float, lat?: float, lon?: float, ellipsoidalHeight?: float,
 *     sd: array{e: float, n: float, h: float}, covariance: list<list<float>>,
 *     ellipse: array{semiMajor: float, semiMinor: float, bearing: float, confidence: float},
 * }
 * @phpstan-type ObservationRow array{
 *     index: int, type: string, component?: string, observed: ?float, adjusted: ?float, residual: ?float, sd: float,
 *     standardized: ?float, redundancyNumber: float, minimalDetectable: ?float, externalEffect: ?float, flagged: bool,
 *     use: string,
 * }
 */
final readonly class AdjustmentResult
{
    /**
     * @param ?array{statistic: float, lower: float, upper: float, passed: bool, level: float} $globalTest null without redundancy or values
     * @param list<array{type: string, count: int, sumSquares: float, redundancy: float, varianceFactor: ?float}> $groups
     * @param list<StationRow> $stations
     * @param list<ObservationRow> $observations
     * @param list<array{index: int, component?: string, pass: int, standardized: float, reason: string}> $aside what screening set aside
     * @param list<string> $warnings
     */
    public function __construct(
        public bool $converged,
        public int $iterations,
        public int $observationCount,
        public int $parameterCount,
        public int $redundancy,
        public ?float $varianceFactor,
        public ?array $globalTest,
        public array $groups,
        public array $stations,
        public array $observations,
        public array $aside,
        public array $warnings,
    ) {
    }

    /** @return array<string, mixed> the mensura-adjustment/1 document */
    public function toArray(): array
    {
        return [
            'format' => 'mensura-adjustment/1',
            'converged' => $this->converged,
            'iterations' => $this->iterations,
            'observationCount' => $this->observationCount,
            'parameterCount' => $this->parameterCount,
            'redundancy' => $this->redundancy,
            'varianceFactor' => $this->varianceFactor,
            'sigma0' => null === $this->varianceFactor ? null : sqrt($this->varianceFactor),
            'globalTest' => $this->globalTest,
            'groups' => $this->groups,
            'stations' => $this->stations,
            'observations' => $this->observations,
            'aside' => $this->aside,
            'warnings' => $this->warnings,
        ];
    }
}
