<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/** Why one row cannot be used. */
final class RowFault extends \DomainException
{
}
