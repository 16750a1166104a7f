<?php

declare(strict_types=1);

namespace App\Survey;

/** The place of the result that the project's own vectors rest on: processed baselines that were accepted. */
final class AcceptedVectors
{
    public const SLOT = 'vectors';
}
