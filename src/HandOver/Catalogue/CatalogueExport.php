<?php

declare(strict_types=1);

namespace App\HandOver\Catalogue;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\Exporter;
use App\Export\OffersChoice;
use App\Project\Project;
use App\Result\Results;
use Mensura\Exchange\FeatureCatalogue\FeatureCatalogue;
use Mensura\Exchange\FeatureCatalogue\FeatureType;
use Mensura\Fault\UnusableInput;

/** A version of a feature catalogue as an open file: each that is written is the next version, and stays. */
final class CatalogueExport implements OffersChoice
{
    public const KEY = 'catalogue';

    public function __construct(private readonly CatalogueRepository $catalogues, private readonly Results $results)
    {
    }

    public static function key(): string
    {
        return self::KEY;
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Feature catalogue', 'Write the catalogue', 'catalogue', 'json', 'application/json', 'Catalogue',
            'types of features with their attributes, for a controller', 7, 1, 'JSON',
        );
    }

    public function choices(Project $project): array
    {
        $names = [];
        foreach ($this->catalogues->of($project) as $c) {
            $names[$c->id()] = $c->name();
        }

        return $names;
    }

    public function restsOn(array $chosen): array
    {
        return [['catalogue:'.($chosen[0] ?? 0)], []];
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        $kept = $this->kept($project, $chosen);
        $catalogue = $kept->definition()->catalogue;
        if ([] === $catalogue->types) {
            throw new UnusableInput('', 'the catalogue holds no type yet; add one first');
        }
        $version = $this->results->nextRun($project, Exporter::PREFIX.self::KEY.':'.$kept->id());
        file_put_contents($path, $catalogue->toJson($kept->name(), $version));

        return [];
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $meant = $this->kept($project, $chosen)->definition()->catalogue;
        [, , $back] = FeatureCatalogue::fromJson((string) file_get_contents($path));
        $attributes = static fn (FeatureCatalogue $c): int => (int) array_sum(
            array_map(static fn (FeatureType $t): int => \count($t->attributes), $c->types),
        );
        $same = array_filter($meant->types, static fn (FeatureType $t): bool => $back->type($t->code)?->toArray() == $t->toArray());

        return [
            Check::count('types', \count($meant->types), \count($back->types)),
            Check::count('attributes', $attributes($meant), $attributes($back)),
            Check::count('types that are the same', \count($meant->types), \count($same)),
        ];
    }

    /** @param list<int> $chosen */
    private function kept(Project $project, array $chosen): KeptCatalogue
    {
        return $this->catalogues->in($project, $chosen[0] ?? 0)
            ?? throw new UnusableInput('/surfaces', 'there is no such catalogue in the project');
    }
}
