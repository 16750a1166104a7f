<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Design\DesignFiles;
use App\Export\DrawingSource;
use App\Project\Project;
use App\Survey\PointRepository;
use Mensura\Exchange\Package\LayerColour;

/** What of a project can be chosen for a package or a view. */
final class Choices
{
    public function __construct(
        private readonly DrawingSource $source, private readonly DesignFiles $designs, private readonly PointRepository $points,
    ) {
    }

    /** @return list<array{id: int, name: string}> */
    public function surfaces(Project $project): array
    {
        return self::listed($this->source->surfaces($project));
    }

    /** @return list<array{file: int, fileName: string, layer: string, lines: int}> */
    public function layers(Project $project): array
    {
        $layers = [];
        foreach ($this->designs->drawings($project) as $drawing) {
            foreach ($drawing->lineLayers as $layer => $lines) {
                $layers[] = ['file' => $drawing->id, 'fileName' => $drawing->name, 'layer' => (string) $layer, 'lines' => $lines];
            }
        }

        return $layers;
    }

    /** @return list<array{role: string, points: int}> */
    public function roles(Project $project): array
    {
        $roles = [];
        foreach ($this->points->roles($project) as $role => $points) {
            $roles[] = ['role' => $role, 'points' => $points];
        }

        return $roles;
    }

    /** @return list<string> */
    public function codes(Project $project): array
    {
        return array_map(strval(...), array_keys($this->points->codes($project)));
    }

    /** @return list<array{name: string, css: string}> */
    public static function colours(): array
    {
        return array_map(
            static fn (string $name, array $colour): array => ['name' => $name, 'css' => $colour[0]],
            array_keys(LayerColour::ALL), LayerColour::ALL,
        );
    }

    /**
     * @param array<int, string> $names
     *
     * @return list<array{id: int, name: string}>
     */
    public static function listed(array $names): array
    {
        return array_map(static fn (int $id, string $name): array => ['id' => $id, 'name' => $name], array_keys($names), $names);
    }
}
