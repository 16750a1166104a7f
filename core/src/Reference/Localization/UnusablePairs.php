<?php

declare(strict_types=1);

namespace Mensura\Reference\Localization;

/** Pairs that a localization cannot be fitted to, and why. */
final class UnusablePairs extends \DomainException
{
}
