<?php

declare(strict_types=1);

namespace App\Intake\Request;

use Symfony\Component\Validator\Constraints as Assert;

final readonly class LabelRequest
{
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim')]
        #[Assert\Length(max: 80)]
        public string $label,
    ) {
    }
}
