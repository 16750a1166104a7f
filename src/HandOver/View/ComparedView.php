<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** Two files of a kind: what differs and why. */
final readonly class ComparedView
{
    /**
     * @param bool         $same    whether they are the same to the byte
     * @param list<string> $because which inputs differ, and which counts
     * @param int          $gone    lines that only the earlier one has
     * @param int          $new     lines that only the later one has
     * @param list<string> $before  the first of these
     * @param list<string> $now
     */
    public function __construct(
        public int $from, public int $to, public bool $same, public array $because, public int $gone, public int $new, public array $before,
        public array $now,
    ) {
    }
}
