<?php

declare(strict_types=1);

namespace Mensura\Fault;

/** Input that cannot be used. The message says where, why and what to do; nothing was produced from it. */
final class UnusableInput extends \DomainException
{
    public function __construct(public readonly string $where, public readonly string $reason)
    {
        parent::__construct('' === $where ? $reason : $where.': '.$reason);
    }
}
