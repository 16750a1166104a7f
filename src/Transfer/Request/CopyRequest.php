<?php

declare(strict_types=1);

namespace App\Transfer\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What a copy of a project is called. */
final readonly class CopyRequest
{
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 200)]
        public string $called,
    ) {
    }
}
