<?php

declare(strict_types=1);

namespace App\Checks\View;

/** What is known of check points held against what was computed there: computed minus known. Metres. */
final readonly class CheckPointsView
{
    /**
     * @param string         $compared   with: point, surface or cloud
     * @param string         $made       slot of a cloud or of heights that were made here
     * @param string         $against    what, in words
     * @param list<AxisView> $axes       those there are
     * @param ?float         $horizontal at 95 %; null without plan, or where the standard gives none
     * @param ?float         $vertical   at 95 %
     * @param int            $enough     points the standard asks for
     * @param list<string>   $stale      reasons
     */
    public function __construct(
        public int $number,
        public string $name,
        public string $compared,
        public string $against,
        public string $pattern,
        public int $surface,
        public int $cloud,
        public float $within,
        public ?float $radius,
        public string $made,
        public int $count,
        public int $used,
        public array $axes,
        public ?float $radial,
        public ?float $horizontal,
        public ?float $vertical,
        public int $enough,
        public int $run,
        public string $output,
        public string $at,
        public string $author,
        public array $stale,
    ) {
    }
}
