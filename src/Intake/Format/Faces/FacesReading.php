<?php

declare(strict_types=1);

namespace App\Intake\Format\Faces;

use App\Intake\Format\NoRecords;
use App\Intake\Format\Reading;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Exchange\Faces\FaceFile;
use Mensura\Mesh\Mesh;

/** A file of faces: how many, on which layers, and what is odd about them. In the project's own coordinates. */
final readonly class FacesReading implements Reading
{
    use NoRecords;

    private int $faces;

    /** @var array<string, int> */
    private array $layers;

    /** @var list<Finding> */
    private array $findings;

    public function __construct(private FaceFile $file)
    {
        $this->faces = [] === $file->layerOf ? intdiv(\count($file->triangles), 3) : \count($file->layerOf);
        $this->layers = array_count_values($file->layerOf);
        $findings = array_map(static fn (string $w): Finding => new Finding(Finding::WARNING, null, $w), $file->warnings);
        $flat = 0;
        foreach (array_chunk($file->triangles, 3) as [$a, $b, $c]) {
            $flat += Mesh::area($file->x, $file->y, $file->z, $a, $b, $c) > 0.0 ? 0 : 1;
        }
        if ($flat > 0) {
            $findings[] = new Finding(Finding::WARNING, null, \sprintf('%d triangles have no area and are left out', $flat));
        }
        if (\in_array(Mesh::MANY, Mesh::of($file->x, $file->y, $file->z, $file->triangles)->opposite, true)) {
            $words = 'more than two faces meet in an edge; sides are told by the faces joined otherwise';
            $findings[] = new Finding(Finding::WARNING, null, $words);
        }
        $this->findings = $findings;
    }

    public function kind(): FileKind
    {
        return FileKind::Design;
    }

    public function counts(): array
    {
        $counts = ['faces' => $this->faces, 'triangles' => intdiv(\count($this->file->triangles), 3)];

        return [] === $this->layers ? $counts : $counts + ['layers' => \count($this->layers)];
    }

    public function size(): int
    {
        return $this->faces;
    }

    public function findings(): array
    {
        return $this->findings;
    }

    public function missing(): ?string
    {
        return null;
    }

    public function kept(): array
    {
        return ['faces' => $this->faces, 'layers' => $this->layers];
    }
}
