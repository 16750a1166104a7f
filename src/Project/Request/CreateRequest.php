<?php

declare(strict_types=1);

namespace App\Project\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** A new project. */
final readonly class CreateRequest
{
    public function __construct(
        #[Assert\NotBlank, Assert\Length(max: 200)]
        public string $name,
        #[Assert\NotBlank]
        public string $reference,
        #[Assert\Choice(['ellipsoidal', 'local'])]
        public string $heights,
    ) {
    }
}
