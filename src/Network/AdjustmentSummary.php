<?php

declare(strict_types=1);

namespace App\Network;

use App\Result\Result;
use Mensura\Network\AdjustmentResult;

/** Figures of an adjustment that are shown without opening it. */
final readonly class AdjustmentSummary
{
    /**
     * @param ?array{
     *     statistic: float, lower: float, upper: float, passed: bool, level: float,
     * } $test of the variance factor times the redundancy; null without redundancy
     * @param list<string>                                     $warnings
     */
    public function __construct(
        public bool $converged,
        public int $redundancy,
        public ?float $varianceFactor,
        public ?array $test,
        public int $observations,
        public int $stations,
        public int $aside,
        public int $flagged,
        public array $warnings,
    ) {
    }

    public static function ofRun(AdjustmentResult $r): self
    {
        $aside = \count(array_filter($r->observations, static fn (array $o): bool => 'aside' === $o['use']));
        $flagged = \count(array_filter($r->observations, static fn (array $o): bool => $o['flagged'] && 'full' === $o['use']));

        return new self(
            $r->converged, $r->redundancy, $r->varianceFactor, $r->globalTest, $r->observationCount,
            \count($r->stations), $aside, $flagged, $r->warnings,
        );
    }

    public static function of(Result $result): self
    {
        $s = $result->summary;

        return new self(
            $s['converged'], $s['redundancy'], $s['varianceFactor'], $s['test'], $s['observations'], $s['stations'],
            $s['aside'], $s['flagged'], $s['warnings'],
        );
    }

    public function passed(): ?bool
    {
        return $this->test['passed'] ?? null;
    }
}
