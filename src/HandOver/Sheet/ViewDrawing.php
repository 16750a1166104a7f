<?php

declare(strict_types=1);

namespace App\HandOver\Sheet;

use App\Design\DesignFiles;
use App\Export\DrawingSource;
use App\Export\ProjectPoints;
use App\Project\Project;
use App\Store\FileStore;
use Mensura\Exchange\Package\LayerColour;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\SurfaceLine;

/** Draws what a view shows: of the project as it is now, or as it was when the view was locked. */
final class ViewDrawing
{
    private const INK = '#1f2733';
    private const CONTOUR = '#a57a2e';
    private const MOST_POINTS = 20_000;

    public function __construct(
        private readonly ProjectPoints $points, private readonly DrawingSource $source, private readonly DesignFiles $designs,
        private readonly FileStore $store,
    ) {
    }

    /** @throws UnusableInput */
    public function of(Project $project, ViewDefinition $d): DrawnView
    {
        return '' === $d->locked ? $this->drawn($project, $d) : DrawnView::fromArray($this->store->getJson($d->locked));
    }

    /** @return string hash of what it shows now, kept */
    public function snapshot(Project $project, ViewDefinition $d): string
    {
        return $this->store->putJson($this->drawn($project, $d)->toArray());
    }

    private function drawn(Project $project, ViewDefinition $d): DrawnView
    {
        $layers = [];
        /** @param list<list<float>> $lines */
        $add = static function (string $name, string $colour, float $width, array $lines) use (&$layers, $d): void {
            if ([] !== $lines) {
                $prints = !\in_array($name, $d->screenOnly, true);
                $layers[] = ['name' => $name, 'colour' => $colour, 'width' => $width, 'prints' => $prints, 'lines' => array_values($lines)];
            }
        };
        foreach ($d->surfaces as $s) {
            foreach ($s['contours'] ? $this->source->contours($project, [$s['id']]) : [] as $drawn) {
                $index = $other = [];
                foreach ($drawn->levels as $level) {
                    $isIndex = 0 === (int) round($level['h'] / $drawn->interval) % $drawn->index;
                    foreach ($level['lines'] as $line) {
                        if ($isIndex) {
                            $index[] = $line;
                        } else {
                            $other[] = $line;
                        }
                    }
                }
                $add("$drawn->surface, contours", self::CONTOUR, 0.13, $other);
                $add("$drawn->surface, index contours", self::CONTOUR, 0.3, $index);
            }
            $byRole = [];
            foreach ($s['lines'] ? $this->source->lines($project, [$s['id']]) : [] as $line) {
                $vertices = $line->isClosed && [] !== $line->vertices ? [...$line->vertices, $line->vertices[0]] : $line->vertices;
                $byRole["$line->surface, $line->role"][] = self::flat($vertices);
            }
            foreach ($byRole as $name => $lines) {
                $add($name, self::INK, 0.25, $lines);
            }
        }
        foreach ($d->layers as $l) {
            $lines = array_map(
                static fn (SurfaceLine $line): array => self::flat($line->vertices),
                $this->designs->lines($project, $l['file'], [$l['layer']], 1.0),
            );
            $add($l['layer'], LayerColour::css($l['colour']), $l['width'], $lines);
        }

        return new DrawnView($layers, $this->chosen($project, $d), $d->names, $d->heights, $d->text, $d->screenOnly);
    }

    /** @return list<array{name: string, e: float, n: float, h: ?float, role: string}> */
    private function chosen(Project $project, ViewDefinition $d): array
    {
        [$roles, $codes, $points] = [array_flip($d->roles), array_flip($d->codes), []];
        foreach ([] === $d->roles ? [] : $this->points->of($project) as $p) {
            if (isset($roles[$p->role]) && ([] === $codes || isset($codes[$p->code]))) {
                $points[] = ['name' => $p->name, 'e' => (float) $p->e, 'n' => (float) $p->n, 'h' => $p->h, 'role' => $p->role];
            }
        }
        if (\count($points) > self::MOST_POINTS) {
            $words = 'a drawing of %d points cannot be read; up to %d are drawn: choose fewer by their codes';
            throw new UnusableInput('/codes', \sprintf($words, \count($points), self::MOST_POINTS));
        }

        return $points;
    }

    /**
     * @param list<array{float, float, ?float}> $vertices
     *
     * @return list<float>
     */
    private static function flat(array $vertices): array
    {
        $flat = [];
        foreach ($vertices as [$e, $n]) {
            array_push($flat, $e, $n);
        }

        return $flat;
    }
}
