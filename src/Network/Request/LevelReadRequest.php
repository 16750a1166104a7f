<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** A file of levelled runs, as text. */
final readonly class LevelReadRequest
{
    public function __construct(
        #[Assert\NotBlank, Assert\Length(max: 5000000)]
        public string $text,
    ) {
    }
}
