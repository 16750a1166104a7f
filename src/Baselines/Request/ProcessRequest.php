<?php

declare(strict_types=1);

namespace App\Baselines\Request;

use App\Baselines\OrbitFiles;
use App\Baselines\ProcessingSettings;
use Symfony\Component\Validator\Constraints as Assert;

/** Baselines to be processed, and what with. */
final readonly class ProcessRequest
{
    /**
     * @param list<list<int>> $pairs   occupations, base first
     * @param float           $mask    least elevation, degrees
     * @param list<string>    $leftOut satellites, as G05
     * @param ?float          $from    first instant used, seconds of GPS time since 1980-01-06
     * @param ?float          $to      last instant used
     */
    public function __construct(
        #[Assert\Count(min: 1, max: 500), Assert\All([new Assert\Count(exactly: 2)])]
        public array $pairs,
        #[Assert\Range(min: 0, max: 60)]
        public float $mask = 10.0,
        #[Assert\Choice([OrbitFiles::BROADCAST, OrbitFiles::PRECISE])]
        public string $orbits = OrbitFiles::BROADCAST,
        #[Assert\Choice([ProcessingSettings::BOTH_BANDS, ProcessingSettings::FIRST_BAND])]
        public string $bands = ProcessingSettings::BOTH_BANDS,
        #[Assert\Choice([ProcessingSettings::WEIGHTED, ProcessingSettings::FREE])]
        public string $ionosphere = ProcessingSettings::WEIGHTED,
        #[Assert\All([new Assert\Regex('/^[A-Z][0-9]{2}$/')])]
        public array $leftOut = [],
        public ?float $from = null,
        public ?float $to = null,
    ) {
    }
}
