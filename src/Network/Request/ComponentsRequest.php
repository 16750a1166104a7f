<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What groups weights are proposed for. */
final readonly class ComponentsRequest
{
    public function __construct(
        #[Assert\Choice(['kind', 'setup'])]
        public string $by,
    ) {
    }
}
