<?php

declare(strict_types=1);

namespace App\Project\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What coordinates and heights mean. */
final readonly class ReferenceRequest
{
    public function __construct(
        #[Assert\NotBlank]
        public string $reference,
        #[Assert\Choice(['ellipsoidal', 'local'])]
        public string $heights,
    ) {
    }
}
