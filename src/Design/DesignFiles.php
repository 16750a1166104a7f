<?php

declare(strict_types=1);

namespace App\Design;

use App\Design\View\DesignFileView;
use App\Design\View\DrawingView;
use App\Project\Project;
use App\Store\FileStore;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Faces\FaceFile;
use Mensura\Exchange\Features\FeatureLines;
use Mensura\Exchange\Features\FeatureReader;
use Mensura\Fault\UnusableInput;
use Mensura\Mesh\Mesh;
use Mensura\Surface\SurfaceLine;

/** Faces that others drew: accepted files of kind design. */
final class DesignFiles
{
    /** Of a drawing; the first where nobody said: then metres, unless that is doubtful. */
    public const UNITS = ['', 'm', 'ft', 'ftUS', 'mm'];
    public const METRES = ['' => 1.0, 'm' => 1.0, 'ft' => 0.3048, 'ftUS' => 1200.0 / 3937.0, 'mm' => 0.001];

    /** Metres between the ends of a line that is taken as closed. */
    private const CLOSED = 1e-6;

    public function __construct(
        private readonly SurveyFileRepository $files, private readonly FileStore $store, private readonly FilePlacement $placement,
    ) {
    }

    /** @return list<DesignFileView> those with faces, that can be compared with */
    public function of(Project $project): array
    {
        return array_values(array_filter($this->drawings($project), static fn (DesignFileView $d): bool => $d->faces > 0));
    }

    /** @return list<DesignFileView> those that draw anything */
    public function drawings(Project $project): array
    {
        $views = [];
        foreach ($this->files->of($project) as $f) {
            if (!self::isDrawing($f)) {
                continue;
            }
            $m = $f->mapping();
            $view = new DesignFileView(
                $f->id(), $f->name(), (int) ($m['faces'] ?? 0), array_map(intval(...), (array) ($m['layers'] ?? [])),
                (int) ($m['lines'] ?? 0), (int) ($m['points'] ?? 0), array_map(intval(...), (array) ($m['lineLayers'] ?? [])),
            );
            if ($view->faces + $view->lines + $view->points > 0) {
                $views[] = $view;
            }
        }

        return $views;
    }

    /** @throws UnusableInput */
    public function view(Project $project, int $id): DrawingView
    {
        $d = $this->drawing($project, $id);
        $names = array_values(array_unique([...$d->layerOf, ...$d->lineLayers, ...$d->pointLayers]));
        $number = array_flip($names);
        $numbers = static fn (array $layers): array => array_values(array_map(static fn (string $l): int => $number[$l], $layers));
        $faces = intdiv(\count($d->triangles), 3);

        return new DrawingView(
            $id, $this->named($project, $id), ...$this->coordinates($project, $id, $d, 1.0), triangles: $d->triangles,
            faceOf: [] !== $d->faceOf || 0 === $faces ? $d->faceOf : range(0, $faces - 1), layers: $names, faceLayer: $numbers($d->layerOf),
            lines: $d->lines, lineLayer: $numbers($d->lineLayers), points: $d->points, pointLayer: $numbers($d->pointLayers),
        );
    }

    /**
     * Lines of a drawing that hold a surface in shape. Boundaries and voids are taken in plan: where they run on the surface is
     * read off the surface, for what others outline often lies at height 0.
     *
     * @param list<string> $layers empty for all
     * @param float        $metre  metres of a unit of the drawing
     *
     * @return list<SurfaceLine>
     *
     * @throws UnusableInput
     */
    public function lines(Project $project, int $id, array $layers, float $metre, string $role = SurfaceLine::BREAKLINE): array
    {
        $d = $this->drawing($project, $id);
        [$x, $y, $z] = $this->coordinates($project, $id, $d, $metre);
        $wanted = array_flip($layers);
        $isRing = SurfaceLine::BREAKLINE !== $role;
        $lines = [];
        foreach ($d->lines as $k => $corners) {
            if ([] === $layers || isset($wanted[$d->lineLayers[$k]])) {
                $name = $d->lineLayers[$k].' '.($k + 1);
                $vertices = array_map(
                    static fn (int $c): array => [$x[$c], $y[$c], $isRing ? null : $z[$c]], $corners,
                );
                $lines[] = new SurfaceLine($role, $name, $isRing ? self::ring($vertices, $name, $role) : $vertices);
            }
        }

        return [] !== $lines ? $lines
            : throw new UnusableInput('/drawn', \sprintf('%s draws no line on these layers', $this->named($project, $id)));
    }

    /**
     * @param list<array{float, float, ?float}> $vertices
     *
     * @return list<array{float, float, ?float}> without the first again at the end
     */
    private static function ring(array $vertices, string $name, string $role): array
    {
        $last = \count($vertices) - 1;
        $gap = $last < 1 ? 0.0 : hypot($vertices[$last][0] - $vertices[0][0], $vertices[$last][1] - $vertices[0][1]);
        if ($gap > self::CLOSED) {
            $words = 'line %s is open by %.3f m; a %s is a closed line: close it in the drawing, or take it as a breakline';
            throw new UnusableInput('/drawn', \sprintf($words, $name, $gap, $role));
        }

        return \array_slice($vertices, 0, $last);
    }

    public function named(Project $project, int $id): string
    {
        return $this->file($project, $id)->name();
    }

    /** @throws UnusableInput */
    private function faces(Project $project, int $id): FaceFile
    {
        $file = $this->file($project, $id);

        return FaceFile::read($this->store->localPath($file->sha256()), $file->name())
            ?? throw new UnusableInput($file->name(), 'holds no faces');
    }

    /**
     * Faces, lines and points as the file holds them.
     *
     * @throws UnusableInput
     */
    public function drawing(Project $project, int $id): FaceFile
    {
        $file = $this->file($project, $id);
        if (isset($file->mapping()['features'])) {
            return FeatureLines::of(FeatureReader::of($this->store->localPath($file->sha256()), $file->name())->set);
        }

        return FaceFile::drawing($this->store->localPath($file->sha256()), $file->name())
            ?? throw new UnusableInput($file->name(), 'draws nothing');
    }

    /**
     * @param list<string> $layers empty for all
     * @param float        $metre  metres of a unit of the drawing
     *
     * @return array{Mesh, int} and how many faces of the drawing it is made of
     *
     * @throws UnusableInput
     */
    public function mesh(Project $project, int $id, array $layers, float $metre = 1.0): array
    {
        [$x, $y, $z, $triangles, $count] = $this->taken($project, $id, $layers, [], $metre);

        return [Mesh::of($x, $y, $z, $triangles), $count];
    }

    /**
     * Faces of some layers, or just those that were picked, as triangles in metres.
     *
     * @param list<string> $layers empty for all
     * @param list<int>    $faces  of the drawing, by number; empty for all of the layers
     * @param float        $metre  metres of a unit of the drawing
     *
     * @return array{list<float>, list<float>, list<float>, list<int>, int} easting, northing, height, corners of triangles, and how
     *                                                                     many faces of the drawing they are
     *
     * @throws UnusableInput
     */
    public function taken(Project $project, int $id, array $layers, array $faces, float $metre): array
    {
        $d = $this->faces($project, $id);
        $ofLayer = array_flip($layers);
        $picked = array_flip($faces);
        $triangles = $seen = [];
        for ($t = 0, $n = intdiv(\count($d->triangles), 3); $t < $n; ++$t) {
            $face = $d->faceOf[$t] ?? $t;
            if (([] === $layers || isset($ofLayer[$d->layerOf[$face] ?? ''])) && ([] === $faces || isset($picked[$face]))) {
                $seen[$face] = true;
                array_push($triangles, $d->triangles[3 * $t], $d->triangles[3 * $t + 1], $d->triangles[3 * $t + 2]);
            }
        }
        if ([] === $triangles) {
            throw new UnusableInput('/design', 'none of these faces is in the drawing');
        }

        return [...$this->coordinates($project, $id, $d, $metre), $triangles, \count($seen)];
    }

    /**
     * Corners of a drawing in the project as it is now; metres.
     *
     * @param float $metre metres of a unit of the drawing
     *
     * @return array{list<float>, list<float>, list<float>}
     *
     * @throws UnusableInput
     */
    public function coordinates(Project $project, int $id, FaceFile $drawing, float $metre): array
    {
        [$x, $y, $z] = [self::scaled($drawing->x, $metre), self::scaled($drawing->y, $metre), self::scaled($drawing->z, $metre)];

        $file = $this->file($project, $id);
        $placed = $this->placement->placed($project, $file, $x, $y, $z);

        // Without heights there is nothing a step could change them from.
        return true === ($file->mapping()['flat'] ?? false) ? [$placed[0], $placed[1], $z] : $placed;
    }

    /**
     * @param list<float> $values
     *
     * @return list<float>
     */
    private static function scaled(array $values, float $metre): array
    {
        return 1.0 === $metre ? $values : array_map(static fn (float $v): float => $metre * $v, $values);
    }

    /** Designs, and what others drew into a file of points. */
    private static function isDrawing(SurveyFile $file): bool
    {
        return !$file->isWaiting() && (FileKind::Design->value === $file->kind() || isset($file->mapping()['features']));
    }

    private function file(Project $project, int $id): SurveyFile
    {
        $file = $this->files->in($project, $id);

        return null !== $file && self::isDrawing($file)
            ? $file
            : throw new UnusableInput('/design', 'there is no such design file in the project');
    }
}
