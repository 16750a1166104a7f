<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use Mensura\Reference\Localization\Localization;

/** A localization and where it leads: its system, and its heights as "ellipsoidal" or "geoid|which". */
final readonly class ReadLocalization
{
    public string $heightKind;
    public string $geoid;

    public function __construct(public string $name, public string $system, public string $heights, public Localization $localization)
    {
        [$this->heightKind, $this->geoid] = explode('|', $heights, 2) + [1 => ''];
    }

    public function leadsTo(Project $project): bool
    {
        return $project->reference() === $this->system && $project->heights() === $this->heightKind && $project->geoid() === $this->geoid;
    }

    /** @return array{float, float, ?float} metres */
    public function toGrid(float $e, float $n, ?float $h): array
    {
        [$x, $y] = $this->localization->toGrid($e, $n);

        return [$x, $y, null === $h ? null : $this->localization->heightToGrid($e, $n, $h)];
    }
}
