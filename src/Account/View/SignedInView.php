<?php

declare(strict_types=1);

namespace App\Account\View;

/** One place the account is signed in; current is the one that asks. */
final readonly class SignedInView
{
    public function __construct(
        public int $id,
        public string $address,
        public string $agent,
        public string $begunAt,
        public string $usedAt,
        public bool $current,
    ) {
    }
}
