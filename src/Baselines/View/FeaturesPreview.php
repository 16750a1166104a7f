<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** What a correction of features would rest on: where the reference is taken to be against what its file says. */
final readonly class FeaturesPreview
{
    /**
     * @param ?list<float> $less east, north, up of the chosen position less that of the header, metres: every feature moves by it
     * @param ?list<float> $place chosen, easting, northing, height of the project
     */
    public function __construct(public ?array $less, public ?array $place)
    {
    }
}
