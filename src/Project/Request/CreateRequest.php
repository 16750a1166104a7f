<?php

declare(strict_types=1);

namespace App\Project\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** A new project. */
final readonly class CreateRequest
{
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 200)]
        public string $name,
        #[Assert\NotBlank(normalizer: 'trim')]
        public string $reference,
        #[Assert\Choice(['ellipsoidal', 'local'])]
        public string $heights,
    ) {
    }
}
