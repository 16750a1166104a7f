<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

/** No transformation between two systems is known, or none where the position is. */
final class NoWay extends \DomainException
{
}
