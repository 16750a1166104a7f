<?php

declare(strict_types=1);

namespace Mensura\Deviation;

/** How measured points are held against a reference. */
enum Along: string
{
    case Vertical = 'vertical';
    case Normal = 'normal';
}
