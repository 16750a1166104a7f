<?php

declare(strict_types=1);

namespace Mensura\LinearAlgebra;

/** The entries of an inverse on the pattern of its Cholesky factor. Asking outside that pattern is a programming error. */
final class SelectedInverse
{
    /**
     * @param list<int>   $start
     * @param list<int>   $rows
     * @param list<float> $below
     * @param list<float> $diagonal
     */
    public function __construct(
        private readonly array $start,
        private readonly array $rows,
        private readonly array $below,
        private readonly array $diagonal,
    ) {
    }

    public function at(int $i, int $j): float
    {
        if ($i === $j) {
            return $this->diagonal[$i];
        }
        if ($i < $j) {
            [$i, $j] = [$j, $i];
        }
        $low = $this->start[$j];
        $high = $this->start[$j + 1] - 1;
        while ($low <= $high) {
            $middle = ($low + $high) >> 1;
            $row = $this->rows[$middle];
            if ($row === $i) {
                return $this->below[$middle];
            }
            if ($row < $i) {
                $low = $middle + 1;
            } else {
                $high = $middle - 1;
            }
        }
        throw new \OutOfRangeException(\sprintf('Entry (%d, %d) is not on the pattern of the factor.', $i, $j));
    }
}
