<?php

declare(strict_types=1);

namespace Mensura\Reference\Text;

/** A text that does not define a coordinate system, and why. */
final class UnreadableSystem extends \DomainException
{
}
