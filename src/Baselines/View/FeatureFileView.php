<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** A file of rover features, and how it was corrected. Seconds of GPS time since 1980-01-06. */
final readonly class FeatureFileView
{
    /**
     * @param list<float> $times   of its positions
     * @param string      $rinex   file its observations are in; empty where they stand with the positions
     * @param list<float> $bands   upper ends, metres; one more count than ends
     * @param list<int>   $before  features in each band by what the rover said
     * @param list<int>   $after   features in each band once corrected
     * @param list<string> $stale
     */
    public function __construct(
        public int $id,
        public string $name,
        public string $title,
        public array $times,
        public string $rinex,
        public array $bands,
        public bool $isCorrected,
        public int $features,
        public int $corrected,
        public int $positions,
        public int $covered,
        public array $before,
        public array $after,
        public string $output,
        public array $stale,
    ) {
    }
}
