<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** The Baselines stage of a project. */
final readonly class BaselinesView
{
    /**
     * @param list<OccupationView> $occupations
     * @param list<BaselineView>   $baselines
     * @param list<ClosureView>    $closures   worst first
     * @param float                $constant   what closures may miss by, metres
     * @param float                $ppm        and by millionths of their length
     * @param list<RecordingView>  $recordings receivers' own files
     * @param ?float               $leap       GPS less UTC when the first occupation began, seconds
     */
    public function __construct(
        public array $occupations,
        public array $baselines,
        public array $closures,
        public float $constant,
        public float $ppm,
        public bool $broadcast,
        public bool $precise,
        public ?float $leap,
        public array $recordings,
    ) {
    }
}
