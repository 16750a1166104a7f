<?php

declare(strict_types=1);

namespace App\HandOver\Cad;

use App\Design\DesignFiles;
use App\Export\AlignmentSource;
use App\Export\DrawingSource;
use App\Export\ProjectPoints;
use App\HandOver\Catalogue\CatalogueLines;
use App\HandOver\Catalogue\CatalogueRepository;
use App\Project\Project;
use Mensura\Exchange\Dxf\DxfWriter;
use Mensura\Exchange\FeatureCatalogue\FeatureCatalogue;
use Mensura\Exchange\FeatureCatalogue\FeatureType;
use Mensura\Exchange\Package\LayerColour;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\SurfaceLine;

/** Takes what is chosen for a drawing out of the project, and puts each on its layer: by code, by surface, by drawing. */
final class CadParts
{
    private const MOST_FACES = 600_000;
    private const OTHER = 7;
    private const COLOURS = ['control' => 1, 'adjusted' => 5, 'surveyed' => 8, 'check' => 6];
    private const LINES = ['breakline' => 32, 'boundary' => 30, 'void' => 34, 'contour' => 34];

    public function __construct(
        private readonly ProjectPoints $points, private readonly DrawingSource $source, private readonly DesignFiles $designs,
        private readonly AlignmentSource $alignments, private readonly CatalogueRepository $catalogues,
        private readonly CatalogueLines $codeLines,
    ) {
    }

    /** @throws UnusableInput */
    public function of(Project $project, CadDefinition $d): CadScene
    {
        $scene = new CadScene();
        $table = 0 === $d->catalogue ? null : $this->catalogues->in($project, $d->catalogue)?->definition()->catalogue;
        $mapping = array_column($d->mapping, null, 'from');
        $layer = static function (string $from, int $colour, string $style) use ($scene, $mapping): string {
            $map = $mapping[$from] ?? ['to' => '', 'colour' => '', 'style' => ''];
            $name = DxfWriter::layerName('' === $map['to'] ? $from : $map['to']);
            $scene->layers[$name] ??= [
                'from' => $from, 'colour' => '' === $map['colour'] ? $colour : LayerColour::index($map['colour']),
                'style' => '' === $map['style'] ? $style : $map['style'], 'count' => 0,
            ];
            ++$scene->layers[$name]['count'];

            return $name;
        };
        $isIn = self::inside($d);
        $isTouched = static fn (array $vertices): bool => [] !== array_filter($vertices, static fn (array $v): bool => $isIn($v[0], $v[1]));
        $this->points($project, $d, $table, $layer, $scene);
        $this->surfaces($project, $d, $layer, $scene);
        $drawn = null !== $table && $d->codeLines ? $this->codeLines->of($project, $table, $d->roles)['lines'] : [];
        foreach ($drawn as $line) {
            if (([] === $d->codes || \in_array($line['code'], $d->codes, true)) && $isTouched($line['vertices'])) {
                $type = $table?->type($line['code']);
                $vertices = array_map(static fn (array $v): array => [$v[0], $v[1], $v[2] ?? 0.0], $line['vertices']);
                $on = $layer($line['code'], self::nearest($type->colour ?? '#000000'), $type->style ?? 'solid');
                $name = trim($line['code'].' '.$line['number']);
                $scene->lines[] = ['layer' => $on, 'name' => $name, 'vertices' => $vertices, 'contour' => null];
            }
        }
        foreach ($d->layers as $l) {
            foreach ($this->designs->lines($project, $l['file'], [$l['layer']], 1.0) as $line) {
                if (!$isTouched($line->vertices)) {
                    continue;
                }
                $vertices = array_map(static fn (array $v): array => [$v[0], $v[1], $v[2] ?? 0.0], $line->vertices);
                $on = $layer($l['layer'], self::OTHER, 'solid');
                $scene->lines[] = ['layer' => $on, 'name' => $line->name, 'vertices' => $vertices, 'contour' => null];
            }
        }
        foreach ($d->alignments as $a) {
            $scene->alignments[] = $alignment = $this->alignments->alignment($project, $a['file'], $a['name']);
            if ('dxf' === $d->format) {
                $chords = $alignment->chords();
                $vertices = array_map(static fn (float $e, float $n): array => [$e, $n, 0.0], $chords->x, $chords->y);
                $on = $layer('ALIGNMENT-'.$alignment->name, 3, 'dashed');
                $scene->lines[] = ['layer' => $on, 'name' => $alignment->name, 'vertices' => $vertices, 'contour' => null];
            }
        }

        return $scene;
    }

    /**
     * Points inside what was drawn on the map are taken, and lines that have a corner there, whole.
     *
     * @return \Closure(float, float): bool
     */
    private static function inside(CadDefinition $d): \Closure
    {
        if ([] === $d->within) {
            return static fn (float $e, float $n): bool => true;
        }
        $corners = array_map(static fn (array $c): array => [$c['e'], $c['n'], null], $d->within);

        return (new SurfaceLine(SurfaceLine::BOUNDARY, 'selection', $corners))->contains(...);
    }

    /** @param \Closure(string, int, string): string $layer */
    private function points(Project $project, CadDefinition $d, ?FeatureCatalogue $table, \Closure $layer, CadScene $scene): void
    {
        [$roles, $codes, $isIn] = [array_flip($d->roles), array_flip($d->codes), self::inside($d)];
        foreach ([] === $d->roles ? [] : $this->points->of($project) as $p) {
            $isChosen = isset($roles[$p->role]) && ([] === $codes || isset($codes[$p->code]));
            if (!$isChosen || !$isIn((float) $p->e, (float) $p->n)) {
                continue;
            }
            // The first word of a code is the code, what follows says how it goes on.
            $type = $table?->type(strtok($p->code.' ', ' ') ?: '');
            $from = null !== $type ? $type->code : 'POINTS-'.strtoupper($p->role);
            $colour = null === $type ? self::COLOURS[$p->role] ?? self::OTHER : self::nearest($type->colour);
            $scene->points[] = [
                'layer' => $layer($from, $colour, $type->style ?? 'solid'), 'name' => $p->name, 'e' => (float) $p->e, 'n' => (float) $p->n,
                'h' => $p->h, 'code' => $p->code, 'symbol' => null === $type || FeatureType::POINT !== $type->kind ? 'dot' : $type->symbol,
            ];
        }
    }

    /** @param \Closure(string, int, string): string $layer */
    private function surfaces(Project $project, CadDefinition $d, \Closure $layer, CadScene $scene): void
    {
        foreach ($d->surfaces as $s) {
            foreach ($s['faces'] ? $this->source->triangles($project, [$s['id']]) : [] as $t) {
                $scene->surfaces[] = [
                    'layer' => $layer(strtoupper($t->surface.'-FACES'), self::OTHER, 'solid'), 'name' => $t->surface, 'x' => $t->x,
                    'y' => $t->y, 'z' => $t->z, 'triangles' => $t->triangles,
                ];
                if ($scene->faces() > self::MOST_FACES) {
                    $words = 'these surfaces have more than %d triangles together; leave one out, or thin it';
                    throw new UnusableInput('/surfaces', \sprintf($words, self::MOST_FACES));
                }
            }
            foreach ($s['lines'] ? $this->source->lines($project, [$s['id']]) : [] as $line) {
                $vertices = $line->isClosed && [] !== $line->vertices ? [...$line->vertices, $line->vertices[0]] : $line->vertices;
                $on = $layer(strtoupper("$line->surface-$line->role"), self::LINES[$line->role], 'solid');
                $scene->lines[] = ['layer' => $on, 'name' => $line->role, 'vertices' => $vertices, 'contour' => null];
            }
            foreach ($s['contours'] && 'dxf' === $d->format ? $this->source->contours($project, [$s['id']]) : [] as $drawn) {
                foreach ($drawn->levels as $level) {
                    foreach ($level['lines'] as $line) {
                        $vertices = array_map(static fn (array $p): array => [$p[0], $p[1], $level['h']], array_chunk($line, 2));
                        $on = $layer(strtoupper($drawn->surface.'-CONTOURS'), self::LINES['contour'], 'solid');
                        $scene->lines[] = ['layer' => $on, 'name' => 'contour', 'vertices' => $vertices, 'contour' => $level['h']];
                    }
                }
            }
        }
    }

    /** The colour of the index that is nearest to one of a catalogue. */
    private static function nearest(string $css): int
    {
        $rgb = static fn (string $c): array => array_map(hexdec(...), str_split(substr($c, 1), 2));
        [$best, $least] = [self::OTHER, \INF];
        foreach (LayerColour::ALL as [$colour, $index]) {
            $apart = array_sum(array_map(static fn (int|float $a, int|float $b): float => ($a - $b) ** 2, $rgb($css), $rgb($colour)));
            if ($apart < $least) {
                [$best, $least] = [$index, $apart];
            }
        }

        return $best;
    }
}
