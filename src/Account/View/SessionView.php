<?php

declare(strict_types=1);

namespace App\Account\View;

/** Who is signed in, and the token unsafe requests must carry. */
final readonly class SessionView
{
    public function __construct(
        public ?UserView $user,
        public string $token,
    ) {
    }
}
