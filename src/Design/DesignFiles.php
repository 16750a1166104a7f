<?php

declare(strict_types=1);

namespace App\Design;

use App\Design\View\DesignFileView;
use App\Project\Project;
use App\Store\FileStore;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Faces\FaceFile;
use Mensura\Fault\UnusableInput;
use Mensura\Mesh\Mesh;

/** Faces that others drew: accepted files of kind design. */
final class DesignFiles
{
    public function __construct(private readonly SurveyFileRepository $files, private readonly FileStore $store)
    {
    }

    /** @return list<DesignFileView> */
    public function of(Project $project): array
    {
        return array_values(array_map(static function (SurveyFile $f): DesignFileView {
            $m = $f->mapping();

            return new DesignFileView($f->id(), $f->name(), (int) ($m['faces'] ?? 0), array_map(intval(...), (array) ($m['layers'] ?? [])));
        }, array_filter(
            $this->files->of($project), static fn (SurveyFile $f): bool => !$f->isWaiting() && FileKind::Design->value === $f->kind()
                && (int) ($f->mapping()['faces'] ?? 0) > 0,
        )));
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
     * @param list<string> $layers empty for all
     * @param float        $metre  metres of a unit of the drawing
     *
     * @return array{Mesh, int} and how many faces of the drawing it is made of
     *
     * @throws UnusableInput
     */
    public function mesh(Project $project, int $id, array $layers, float $metre = 1.0): array
    {
        $faces = $this->faces($project, $id);
        $triangles = $faces->triangles;
        $count = [] === $faces->layerOf ? intdiv(\count($triangles), 3) : \count($faces->layerOf);
        if ([] !== $layers && [] !== $faces->faceOf) {
            $wanted = array_flip($layers);
            $triangles = [];
            $count = \count(array_filter($faces->layerOf, static fn (string $l): bool => isset($wanted[$l])));
            foreach ($faces->faceOf as $t => $face) {
                if (isset($wanted[$faces->layerOf[$face]])) {
                    array_push($triangles, $faces->triangles[3 * $t], $faces->triangles[3 * $t + 1], $faces->triangles[3 * $t + 2]);
                }
            }
        }

        [$x, $y, $z] = [self::scaled($faces->x, $metre), self::scaled($faces->y, $metre), self::scaled($faces->z, $metre)];

        return [Mesh::of($x, $y, $z, $triangles), $count];
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

    private function file(Project $project, int $id): SurveyFile
    {
        $file = $this->files->in($project, $id);

        return null !== $file && !$file->isWaiting() && FileKind::Design->value === $file->kind()
            ? $file
            : throw new UnusableInput('/design', 'there is no such design file in the project');
    }
}
