<?php

declare(strict_types=1);

namespace App\Intake\View;

/**
 * A name of a waiting file that may be another one: spelled alike, or lying where that lies; or the same name lying elsewhere.
 * Distance in metres between the two determinations, where both have one; where names the file, or the project, the other
 * stands in.
 */
final readonly class NameQuestionView
{
    public function __construct(
        public int $file,
        public string $fileName,
        public string $name,
        public string $other,
        public string $where,
        public bool $alike,
        public ?float $plan,
        public ?float $height,
        public ?string $answer,
    ) {
    }
}
