<?php

declare(strict_types=1);

namespace App\Review;

use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Review\View\RemarkView;

/** What was said about a thing, and whether it stands as checked. A check falls away when what was checked is not there any more. */
final class Checked
{
    public function __construct(private readonly RemarkRepository $remarks, private readonly Results $results)
    {
    }

    /** @return list<RemarkView> oldest first */
    public function about(Project $project, string $about): array
    {
        return array_map(function (Remark $r) use ($project): RemarkView {
            $why = $r->checks ? $this->fallenAway($project, $r) : '';

            return new RemarkView(
                $r->id(), $r->about, $r->text, $r->author, $r->at->format(\DATE_ATOM), $r->answers, $r->checks,
                $r->checks && '' === $why, $why,
            );
        }, $this->remarks->about($project, $about));
    }

    /** For a report or a manifest: "checked by Name, 2031-05-04 16:20 UTC"; empty where no check stands. */
    public function words(Project $project, string $slot): string
    {
        foreach (array_reverse($this->remarks->about($project, $slot)) as $r) {
            if ($r->checks && '' === $this->fallenAway($project, $r)) {
                return \sprintf('checked by %s, %s UTC', $r->author, $r->at->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d H:i'));
            }
        }

        return '';
    }

    /** The result in a place as it is now; null where there is none. */
    public function result(Project $project, string $slot): ?Result
    {
        return $this->results->current($project)[$slot] ?? null;
    }

    private function fallenAway(Project $project, Remark $remark): string
    {
        if ('' === $remark->output) {
            return '';
        }
        $now = $this->result($project, $remark->about);

        return match (true) {
            null === $now => 'it is not there any more',
            $now->output !== $remark->output => \sprintf('run %d is another', $now->run),
            default => implode('; ', $this->results->stale($project)[$remark->about] ?? []),
        };
    }
}
