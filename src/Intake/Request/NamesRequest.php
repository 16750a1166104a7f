<?php

declare(strict_types=1);

namespace App\Intake\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What names of a waiting file stand for: a name that stands for itself is kept apart from what looks like it. */
final readonly class NamesRequest
{
    /** @param list<array{from: string, to: string}> $names */
    public function __construct(
        #[Assert\Count(max: 2000)]
        #[Assert\All([new Assert\Collection([
            'from' => new Assert\Sequentially([new Assert\Type('string'), new Assert\Length(min: 1, max: 60)]),
            'to' => new Assert\Sequentially([new Assert\Type('string'), new Assert\Length(min: 1, max: 60)]),
        ])])]
        public array $names,
    ) {
    }
}
