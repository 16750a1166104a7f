<?php

declare(strict_types=1);

namespace App\Baselines;

/** Places of the stage's results: a kind, then the pair of occupations. */
final class Slots
{
    public const STATIC = 'baseline:';
    public const EPOCHS = 'epochs:';
    public const FEATURES = 'features:';
}
