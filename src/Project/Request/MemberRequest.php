<?php

declare(strict_types=1);

namespace App\Project\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Gives someone a role in a project; "none" takes it away. */
final readonly class MemberRequest
{
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim')]
        public string $username,
        #[Assert\Choice(['owner', 'editor', 'reviewer', 'none'])]
        public string $role,
    ) {
    }
}
