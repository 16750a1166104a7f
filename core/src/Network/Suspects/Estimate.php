<?php

declare(strict_types=1);

namespace Mensura\Network\Suspects;

/** What one to three further parameters of a network come out as, in the units of its equations. */
final readonly class Estimate
{
    /**
     * @param list<float>       $delta
     * @param list<list<float>> $covariance a priori
     * @param float             $fall       of the weighted sum of squares, in the linear model
     * @param ?float            $after      weighted sum of squares with them, where it was solved to the end
     */
    public function __construct(public array $delta, public array $covariance, public float $fall, public ?float $after = null)
    {
    }

    /** The value, or the length of the vector. */
    public function size(): float
    {
        return 1 === \count($this->delta)
            ? $this->delta[0]
            : sqrt(array_sum(array_map(static fn (float $d): float => $d * $d, $this->delta)));
    }

    /** Standard deviation of {@see size()}. */
    public function sd(): float
    {
        if (1 === \count($this->delta)) {
            return sqrt($this->covariance[0][0]);
        }
        $size = $this->size();
        $variance = 0.0;
        foreach ($this->covariance as $r => $row) {
            foreach ($row as $c => $value) {
                $variance += $this->delta[$r] * $value * $this->delta[$c];
            }
        }

        return $size > 0.0 ? sqrt(max(0.0, $variance)) / $size : sqrt($this->covariance[0][0]);
    }

    public function statistic(): float
    {
        $sd = $this->sd();

        return $sd > 0.0 ? $this->size() / $sd : 0.0;
    }
}
