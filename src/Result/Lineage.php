<?php

declare(strict_types=1);

namespace App\Result;

use App\Project\Project;
use App\Result\View\LineageView;

/** What a result rests on, down to the files, and who decided what on the way. */
final class Lineage
{
    public function __construct(private readonly ContentVersions $contents, private readonly Results $results)
    {
    }

    /** @return list<LineageView> */
    public function of(Project $project, string $slot): array
    {
        $steps = [];
        $this->follow($project, $slot, 0, $this->results->current($project), $this->results->stale($project), $steps);

        return $steps;
    }

    /**
     * @param array<string, Result>       $current
     * @param array<string, list<string>> $stale
     * @param list<LineageView>           $steps
     */
    private function follow(Project $project, string $slot, int $depth, array $current, array $stale, array &$steps): void
    {
        $result = $current[$slot] ?? null;
        if (null === $result) {
            return;
        }
        $text = \sprintf(
            '%s, run %d, %s UTC by %s', $result->label, $result->run, $result->createdAt->format('Y-m-d H:i'),
            $result->authorName,
        );
        $steps[] = new LineageView($depth, $text, isset($stale[$slot]));
        foreach (array_map(strval(...), array_keys($result->inputs)) as $input) {
            if (str_starts_with($input, Result::RESULT)) {
                $this->follow($project, substr($input, \strlen(Result::RESULT)), $depth + 1, $current, $stale, $steps);
                continue;
            }
            foreach ($this->contents->origin($project, $input) as $text) {
                $steps[] = new LineageView($depth + 1, $text, false);
            }
        }
    }
}
