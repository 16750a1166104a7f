<?php

declare(strict_types=1);

namespace Mensura\Reference;

final class UnknownSystem extends \DomainException
{
}
