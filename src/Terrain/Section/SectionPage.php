<?php

declare(strict_types=1);

namespace App\Terrain\Section;

use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Terrain\View\SectionView;

/** The sections of a project. */
final class SectionPage
{
    public function __construct(private readonly Results $results)
    {
    }

    /** @return list<SectionView> by number */
    public function of(Project $project): array
    {
        $stale = $this->results->stale($project);
        $views = [];
        foreach ($this->results->current($project) as $slot => $result) {
            if (str_starts_with($slot, SectionMaker::PREFIX)) {
                $views[$result->number()] = self::section($result, $stale[$slot] ?? []);
            }
        }
        ksort($views);

        return array_values($views);
    }

    /** @param list<string> $stale */
    private static function section(Result $r, array $stale): SectionView
    {
        $x = SectionSettings::fromArray($r->settings);
        $s = $r->summary;

        return new SectionView(
            $r->number(), $x->name, $x->surfaces, $x->line, $x->file, $x->alignment, $x->offset, $x->every, $x->half, $s['length'],
            $s['start'], $s['low'], $s['high'], $s['points'], $s['crosses'], $r->output, $r->run, $r->at(), $r->authorName, $stale,
        );
    }
}
