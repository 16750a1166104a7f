<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Other values for control marks: metres; what is left out stays. Applied, or only worked out. */
final readonly class ReorientRequest
{
    /** @param list<array{point: string, e: ?float, n: ?float, h: ?float}> $control */
    public function __construct(
        #[Assert\Count(min: 1, max: 2000)]
        public array $control,
        public bool $apply = false,
        #[Assert\Length(max: 400)]
        public string $reason = '',
    ) {
    }
}
