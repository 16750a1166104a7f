<?php

declare(strict_types=1);

namespace Mensura\Reference;

/** A position a projection cannot represent. */
final class OutsideProjection extends \DomainException
{
}
