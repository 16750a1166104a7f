<?php

declare(strict_types=1);

namespace App\Review\View;

/** What somebody said about a thing. */
final readonly class RemarkView
{
    /**
     * @param int    $answers the remark it answers; 0 for none
     * @param bool   $checks  whether it says that the thing was checked
     * @param bool   $stands  whether the check still does
     * @param string $why     a check fell away
     */
    public function __construct(
        public int $id,
        public string $about,
        public string $text,
        public string $author,
        public string $at,
        public int $answers,
        public bool $checks,
        public bool $stands,
        public string $why,
    ) {
    }
}
