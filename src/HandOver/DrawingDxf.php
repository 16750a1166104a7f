<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Export\Check;
use App\Export\DrawingSource;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\Export\ProjectPoints;
use App\Project\Project;
use App\Survey\AcceptedCoordinates;
use App\Survey\PointRow;
use Mensura\Exchange\Dxf\DxfReader;
use Mensura\Exchange\Dxf\DxfWriter;

/** Points with names and heights, the lines of surfaces, and their contours, on layers. */
final class DrawingDxf implements OffersChoice
{
    /** Metres. */
    private const TEXT_HEIGHT = 0.5;
    private const NAMES = 'POINT-NAMES';
    private const HEIGHTS = 'POINT-HEIGHTS';
    private const CONTOURS = '-CONTOURS';
    private const COLOURS = [
        'control' => 1, 'adjusted' => 5, 'surveyed' => 8, 'check' => 6, 'name' => 250, 'height' => 252, 'breakline' => 32,
        'boundary' => 30, 'void' => 34,
        'contour' => 34, 'index' => 32,
    ];
    private const OTHER = 7;

    public function __construct(private readonly ProjectPoints $points, private readonly DrawingSource $source)
    {
    }

    public static function key(): string
    {
        return 'dxf';
    }

    public function about(): ExportAbout
    {
        $holds = 'points with names and heights, lines and contours on layers';

        return new ExportAbout('Drawing as DXF', 'Write the drawing', 'drawing', 'dxf', 'image/vnd.dxf', 'Drawing', $holds, 20, 100);
    }

    public function choices(Project $project): array
    {
        return $this->source->surfaces($project);
    }

    public function restsOn(array $surfaces): array
    {
        return [['points'], [AcceptedCoordinates::SLOT, ...array_map(static fn (int $s): string => 'surface:'.$s, $surfaces)]];
    }

    public function write(Project $project, array $surfaces, string $path): array
    {
        $dxf = new DxfWriter();
        foreach ($this->points->of($project) as $p) {
            self::point($dxf, $p);
        }
        $flat = [];
        foreach ($this->source->lines($project, $surfaces) as $line) {
            $layer = strtoupper("{$line->surface}-{$line->role}");
            $dxf->layer($layer, self::COLOURS[$line->role]);
            $dxf->polyline3d($layer, $line->vertices, $line->isClosed);
            if ($line->isFlat) {
                $flat[] = "{$line->role} of {$line->surface}";
            }
        }
        foreach ($this->source->contours($project, $surfaces) as $contours) {
            foreach ($contours->levels as $level) {
                $isIndex = 0 === (int) round($level['h'] / $contours->interval) % $contours->index;
                $layer = strtoupper($contours->surface.self::CONTOURS.($isIndex ? '-INDEX' : ''));
                $dxf->layer($layer, self::COLOURS[$isIndex ? 'index' : 'contour']);
                foreach ($level['lines'] as $line) {
                    $dxf->contour($layer, array_map(static fn (array $p): array => [$p[0], $p[1]], array_chunk($line, 2)), $level['h']);
                }
            }
        }
        $dxf->save($path);
        $heights = [] === $flat ? [] : ['heights of drawn lines, written at 0: '.implode(', ', $flat)];

        return [...$this->points->leftOut($project), ...$heights];
    }

    private static function point(DxfWriter $dxf, PointRow $p): void
    {
        [$e, $n, $h] = [(float) $p->e, (float) $p->n, $p->h ?? 0.0];
        $layer = strtoupper('POINTS-'.$p->role);
        $dxf->layer($layer, self::COLOURS[$p->role] ?? self::OTHER);
        $dxf->point($layer, $e, $n, $h);
        $dxf->layer(self::NAMES, self::COLOURS['name']);
        $dxf->text(self::NAMES, $e + self::TEXT_HEIGHT, $n + 0.2 * self::TEXT_HEIGHT, $h, self::TEXT_HEIGHT, $p->name);
        if (null !== $p->h) {
            $dxf->layer(self::HEIGHTS, self::COLOURS['height']);
            $dxf->text(self::HEIGHTS, $e + self::TEXT_HEIGHT, $n - 1.2 * self::TEXT_HEIGHT, $h, self::TEXT_HEIGHT, \sprintf('%.3f', $h));
        }
    }

    public function check(Project $project, array $surfaces, string $path): array
    {
        $places = $this->points->of($project);
        $names = $this->points->of($project);
        $largest = 0.0;
        $points = $named = $lines = $contours = 0;
        $length = 0.0;
        foreach (DxfReader::entities($path) as $entity) {
            if ('point' === $entity->kind) {
                ++$points;
                $p = $places->valid() ? $places->current() : null;
                $places->next();
                [$x, $y, $z] = $entity->vertices[0];
                $largest = null === $p ? \INF : max($largest, abs($x - $p->e), abs($y - $p->n), abs($z - ($p->h ?? 0.0)));
            } elseif ('text' === $entity->kind && self::NAMES === $entity->layer) {
                $named += (int) ($names->valid() && $names->current()->name === $entity->text);
                $names->next();
            } elseif ('line' === $entity->kind) {
                $isContour = str_contains($entity->layer, self::CONTOURS);
                $lines += (int) !$isContour;
                $contours += (int) $isContour;
                $length += $isContour ? $entity->planLength() : 0.0;
            }
        }
        $expected = 0;
        foreach ($this->points->of($project) as $p) {
            ++$expected;
        }
        $checks = [
            Check::count('points', $expected, $points),
            Check::difference('coordinates', $points === $expected ? $largest : \INF, 0.000001),
            Check::count('names in order', $expected, $named),
        ];

        return [] === $surfaces ? $checks : [...$checks, ...$this->checkSurfaces($project, $surfaces, $lines, $contours, $length)];
    }

    /**
     * @param list<int> $surfaces
     *
     * @return list<Check>
     */
    private function checkSurfaces(Project $project, array $surfaces, int $lines, int $contours, float $length): array
    {
        $expected = 0;
        foreach ($this->source->contours($project, $surfaces) as $drawn) {
            foreach ($drawn->levels as $level) {
                $expected += \count($level['lines']);
                $length -= $level['length'];
            }
        }

        return [
            Check::count('lines of surfaces', \count($this->source->lines($project, $surfaces)), $lines),
            Check::count('contours', $expected, $contours),
            Check::difference('total length of contours', abs($length), 0.05),
        ];
    }
}
