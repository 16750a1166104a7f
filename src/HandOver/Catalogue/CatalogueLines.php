<?php

declare(strict_types=1);

namespace App\HandOver\Catalogue;

use App\Export\ProjectPoints;
use App\Project\Project;
use Mensura\Exchange\FeatureCatalogue\FeatureCatalogue;
use Mensura\Exchange\FeatureCatalogue\FeatureType;
use Mensura\Exchange\FeatureCatalogue\Linework;

/**
 * Lines and areas that the codes of the project's points draw, in the order they came: what a catalogue calls a line or an area. How a
 * line goes on stands behind the code, or where the file says it apart.
 *
 * @phpstan-import-type Line from Linework
 */
final class CatalogueLines
{
    public function __construct(private readonly ProjectPoints $points)
    {
    }

    /**
     * @param list<string> $roles of points; empty for all
     *
     * @return array{lines: list<Line>, faults: list<string>}
     */
    public function of(Project $project, FeatureCatalogue $catalogue, array $roles = []): array
    {
        $codes = $areas = $shots = [];
        foreach ($catalogue->types as $type) {
            if (FeatureType::POINT !== $type->kind) {
                $codes[] = $type->code;
                $areas[$type->code] = FeatureType::AREA === $type->kind;
            }
        }
        foreach ([] === $codes ? [] : $this->points->of($project) as $p) {
            if ('' !== $p->code && ([] === $roles || \in_array($p->role, $roles, true))) {
                $code = trim($p->code.' '.$p->measured()->line);
                $shots[] = ['name' => $p->name, 'code' => $code, 'e' => (float) $p->e, 'n' => (float) $p->n, 'h' => $p->h];
            }
        }

        return Linework::of($shots, $codes, $areas);
    }
}
