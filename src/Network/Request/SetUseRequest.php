<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Which rows to set aside or bring back. */
final readonly class SetUseRequest
{
    /**
     * @param list<array{id: int, component: ?string}> $rows
     */
    public function __construct(
        #[Assert\Count(min: 1, max: 20000)]
        public array $rows,
        public bool $aside,
        #[Assert\Length(max: 400)]
        public string $reason = '',
    ) {
    }
}
