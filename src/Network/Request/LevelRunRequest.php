<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** A run of levels as it is written; id of a run that is there already. */
final readonly class LevelRunRequest
{
    /** @param list<array{kind: string, point: string, reading: ?float, distance: ?float}> $rows */
    public function __construct(
        #[Assert\NotBlank, Assert\Length(max: 60)]
        public string $name,
        #[Assert\Choice(['BF', 'BFFB', 'BBFF'])]
        public string $pattern,
        #[Assert\Count(max: 20000)]
        public array $rows,
        public ?int $id = null,
    ) {
    }
}
