<?php

declare(strict_types=1);

namespace App\Baselines\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What is ordered of a reference station. Instants of UTC, as 2031-05-04T09:00:00Z, whole hours. */
final readonly class StationOrderRequest
{
    public function __construct(
        #[Assert\Regex('/^[A-Za-z0-9_-]{1,20}$/')]
        public string $station,
        #[Assert\Regex('/^\d{4}-\d\d-\d\dT\d\d:00:00Z$/')]
        public string $from,
        #[Assert\Regex('/^\d{4}-\d\d-\d\dT\d\d:00:00Z$/')]
        public string $to,
        #[Assert\Choice([1, 5, 10, 15, 30])]
        public int $interval = 5,
        #[Assert\Choice(['rinex-3', 'rinex-2'])]
        public string $format = 'rinex-3',
    ) {
    }
}
