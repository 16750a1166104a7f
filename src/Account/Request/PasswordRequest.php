<?php

declare(strict_types=1);

namespace App\Account\Request;

use App\Account\User;
use Symfony\Component\Validator\Constraints as Assert;

/** A new password, with the one it replaces. */
final readonly class PasswordRequest
{
    public function __construct(
        #[Assert\NotBlank, Assert\Length(max: 4096)]
        public string $current,
        #[Assert\Length(min: User::SHORTEST_PASSWORD, max: 4096, minMessage: 'A password needs at least {{ limit }} characters.')]
        public string $new,
    ) {
    }
}
