<?php

declare(strict_types=1);

namespace App\Checks;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;
use App\Survey\PointRepository;

/** Points chosen by code and name: other points may come and go without making stale what rests on these. */
final class MeasuredContent implements Content
{
    public function __construct(private readonly PointRepository $points)
    {
    }

    public static function kind(): string
    {
        return 'measured';
    }

    public function version(Project $project, string $which): string
    {
        [$codes, $pattern] = (array) json_decode($which, true, 8, \JSON_THROW_ON_ERROR);
        $context = hash_init('sha256');
        foreach ($this->points->onGrid($project) as $p) {
            if (DeviationSettings::takes($p, $codes, $pattern)) {
                hash_update($context, ContentVersions::hash([$p->name, $p->e, $p->n, $p->h]));
            }
        }

        return substr(hash_final($context), 0, 32);
    }

    public function words(): string
    {
        return 'its measured points';
    }

    public function origin(Project $project): array
    {
        return ['points chosen by code and name'];
    }
}
