<?php

declare(strict_types=1);

namespace App\Intake\Format\Faces;

use App\Intake\Format\NoRecords;
use App\Intake\Format\Reading;
use Mensura\Alignment\Alignment;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Exchange\Faces\FaceFile;
use Mensura\Mesh\Mesh;

/** A file of faces, lines, points or alignments: how many, on which layers, and what is odd about them. Coordinates are the project's. */
final readonly class FacesReading implements Reading
{
    use NoRecords;

    private int $faces;

    private int $triangles;

    private int $lines;

    private int $points;

    /** @var array<string, int> */
    private array $layers;

    /** @var array<string, int> */
    private array $lineLayers;

    /** @var list<Finding> */
    private array $findings;

    /** @param list<Alignment> $alignments */
    public function __construct(?FaceFile $file, private array $alignments = [])
    {
        $triangles = $file->triangles ?? [];
        $layerOf = $file->layerOf ?? [];
        $this->triangles = intdiv(\count($triangles), 3);
        $this->faces = [] === $layerOf ? $this->triangles : \count($layerOf);
        $this->layers = array_count_values($layerOf);
        $this->lines = \count($file->lines ?? []);
        $this->points = \count($file->points ?? []);
        $this->lineLayers = array_count_values($file->lineLayers ?? []);
        $findings = array_map(static fn (string $w): Finding => new Finding(Finding::WARNING, null, $w), $file->warnings ?? []);
        $this->findings = null === $file ? $findings : [...$findings, ...self::odd($file)];
    }

    /** @return list<Finding> */
    private static function odd(FaceFile $file): array
    {
        $findings = [];
        $flat = 0;
        foreach (array_chunk($file->triangles, 3) as [$a, $b, $c]) {
            $flat += Mesh::area($file->x, $file->y, $file->z, $a, $b, $c) > 0.0 ? 0 : 1;
        }
        if ($flat > 0) {
            $findings[] = new Finding(Finding::WARNING, null, \sprintf('%d triangles have no area and are left out', $flat));
        }
        if ($flat === intdiv(\count($file->triangles), 3)) {
            return $findings;
        }
        if (\in_array(Mesh::MANY, Mesh::of($file->x, $file->y, $file->z, $file->triangles)->opposite, true)) {
            $words = 'more than two faces meet in an edge; sides are told by the faces joined otherwise';
            $findings[] = new Finding(Finding::WARNING, null, $words);
        }

        return $findings;
    }

    public function kind(): FileKind
    {
        return FileKind::Design;
    }

    public function counts(): array
    {
        $counts = ['faces' => $this->faces, 'triangles' => $this->triangles, 'lines' => $this->lines, 'points' => $this->points];
        $layers = \count($this->layers + $this->lineLayers);

        return array_filter($counts + ['layers' => $layers, 'alignments' => \count($this->alignments)]);
    }

    public function size(): int
    {
        return $this->faces + $this->lines + $this->points + \count($this->alignments);
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
        $kept = ['faces' => $this->faces, 'layers' => $this->layers];
        $drawn = array_filter(['lines' => $this->lines, 'points' => $this->points, 'lineLayers' => $this->lineLayers]);
        $kept += $drawn;
        $lengths = array_map(static fn (Alignment $a): float => $a->length, $this->alignments);

        return [] === $lengths ? $kept : $kept + ['alignments' => array_combine(array_column($this->alignments, 'name'), $lengths)];
    }
}
