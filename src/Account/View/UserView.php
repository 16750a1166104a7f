<?php

declare(strict_types=1);

namespace App\Account\View;

/** An account as others see it. */
final readonly class UserView
{
    public function __construct(
        public string $username,
        public string $name,
    ) {
    }
}
