<?php

declare(strict_types=1);

namespace Mensura\Reference;

/** A projection or transformation method that is known to exist but is not computed here. */
final class UnsupportedMethod extends \DomainException
{
}
