<?php

declare(strict_types=1);

namespace App\Baselines\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** How the points made of a rover's stops are called: the prefix with a number, and the code of all. */
final readonly class StopsRequest
{
    private const NAME = '/^[^\s,;"\']*$/u';

    public function __construct(
        #[Assert\NotBlank, Assert\Length(max: 30), Assert\Regex(self::NAME)]
        public string $prefix,
        #[Assert\Length(max: 30), Assert\Regex(self::NAME)]
        public string $code = '',
    ) {
    }
}
