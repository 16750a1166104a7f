<?php

declare(strict_types=1);

namespace App\Course\View;

use App\Job\View\JobView;
use App\Project\View\UnitsView;

/** All that the frame shows of a project. */
final readonly class Overview
{
    /**
     * @param list<StageView> $stages
     * @param list<StaleView> $stale
     * @param list<JobView> $jobs
     */
    public function __construct(
        public int $id,
        public string $name,
        public string $role,
        public bool $mayChange,
        public string $reference,
        public string $referenceName,
        public string $heights,
        public string $geoid,
        public int $revision,
        public UnitsView $units,
        public array $stages,
        public array $stale,
        public array $jobs,
        public ?int $undo,
        public ?int $redo,
        public int $ledgerCount,
    ) {
    }
}
