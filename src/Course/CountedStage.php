<?php

declare(strict_types=1);

namespace App\Course;

use App\Course\View\StageView;
use App\Result\Result;

/** State of a stage whose work is things of one kind: surfaces, files handed over. */
final class CountedStage
{
    /**
     * @param list<string>                $prefixes of their slots
     * @param array<string, Result>       $current
     * @param array<string, list<string>> $stale
     */
    public static function of(string $key, string $label, array $prefixes, string $noun, array $current, array $stale): StageView
    {
        $isOurs = static fn (string $slot): bool => \in_array(substr($slot, 0, (int) strpos($slot, ':') + 1), $prefixes, true);
        $count = \count(array_filter(array_keys($current), $isOurs));
        $old = \count(array_filter(array_keys($stale), $isOurs));

        return match (true) {
            0 === $count => new StageView($key, $label, 'empty', '—'),
            $old > 0 => new StageView($key, $label, 'stale', "$old stale"),
            default => new StageView($key, $label, 'done', $count.' '.$noun.(1 === $count ? '' : 's')),
        };
    }
}
