<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** A point's new name. */
final readonly class RenameRequest
{
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim')]
        public string $from,
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 60)]
        public string $to,
    ) {
    }
}
