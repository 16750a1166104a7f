<?php

declare(strict_types=1);

namespace Mensura\Fault;

/** Input that cannot be used. The message says where, why and what to do; nothing was produced from it. */
final class UnusableInput extends \DomainException
{
    /** Nothing fixes position, direction or size of a network: coordinates held there, or a free adjustment, mend it. */
    public const DATUM_DEFECT = 'datum-defect';

    /** @param string $kind one of the constants where a program can offer the remedy, else empty */
    public function __construct(public readonly string $where, public readonly string $reason, public readonly string $kind = '')
    {
        parent::__construct('' === $where ? $reason : $where.': '.$reason);
    }
}
