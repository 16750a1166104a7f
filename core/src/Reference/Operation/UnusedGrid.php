<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

/** A grid was asked for by name, and no step of the way can use it. */
final class UnusedGrid extends \DomainException
{
}
