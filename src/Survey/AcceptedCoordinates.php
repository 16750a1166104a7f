<?php

declare(strict_types=1);

namespace App\Survey;

/** The place of the result that points with adjusted coordinates rest on. */
final class AcceptedCoordinates
{
    public const SLOT = 'coordinates';
}
