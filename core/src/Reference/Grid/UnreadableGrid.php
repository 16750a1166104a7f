<?php

declare(strict_types=1);

namespace Mensura\Reference\Grid;

/** A grid file that cannot be used, and why. */
final class UnreadableGrid extends \DomainException
{
}
