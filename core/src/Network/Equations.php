<?php

declare(strict_types=1);

namespace Mensura\Network;

/** The observation equations of a solved network, by observation. */
final readonly class Equations
{
    /**
     * @param array<int, array{bool, bool, bool}> $used
     * @param array<int, ?list<list<float>>>      $weights      zeros at unused components
     * @param array<int, list<list<float>>>       $covariances  SI and radians
     * @param array<int, list<list<float>>>       $coefficients per row
     * @param array<int, ?list<float>>            $misclosure   observed minus computed per row, null when it cannot be predicted
     */
    public function __construct(
        public array $used,
        public array $weights,
        public array $covariances,
        public array $coefficients,
        public array $misclosure,
    ) {
    }
}
