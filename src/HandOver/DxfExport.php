<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Ledger\Results;
use App\Project\Project;
use App\Store\FileStore;
use App\Terrain\SurfaceDefinition;
use Doctrine\DBAL\Connection;
use Mensura\Exchange\Dxf\DxfReader;
use Mensura\Exchange\Dxf\DxfWriter;
use Mensura\Fault\UnusableInput;

/** Points with names and heights, the lines of surfaces, and their contours, on layers. */
final class DxfExport implements ExportWriter
{
    private const TEXT_HEIGHT = 0.5;
    private const INDEX_EVERY = 5;
    private const COLOURS = ['control' => 1, 'adjusted' => 5, 'surveyed' => 8, 'name' => 250, 'height' => 252, 'breakline' => 32, 'boundary' => 30, 'void' => 34, 'contour' => 34, 'index' => 32];

    public function __construct(
        private readonly Connection $connection,
        private readonly ProjectPoints $points,
        private readonly Results $results,
        private readonly FileStore $store,
    ) {
    }

    public static function kind(): string
    {
        return 'dxf';
    }

    public function write(Project $project, array $surfaces): Written
    {
        $dxf = new DxfWriter();
        foreach ($this->points->of($project) as $p) {
            $layer = strtoupper('POINTS-'.$p['role']);
            $dxf->layer($layer, self::COLOURS[$p['role']] ?? 7);
            $dxf->point($layer, $p['e'], $p['n'], $p['h'] ?? 0.0);
            $dxf->layer('POINT-NAMES', self::COLOURS['name']);
            $dxf->text('POINT-NAMES', $p['e'] + self::TEXT_HEIGHT, $p['n'] + 0.2 * self::TEXT_HEIGHT, $p['h'] ?? 0.0, self::TEXT_HEIGHT, $p['name']);
            if (null !== $p['h']) {
                $dxf->layer('POINT-HEIGHTS', self::COLOURS['height']);
                $dxf->text('POINT-HEIGHTS', $p['e'] + self::TEXT_HEIGHT, $p['n'] - 1.2 * self::TEXT_HEIGHT, $p['h'], self::TEXT_HEIGHT, \sprintf('%.3f', $p['h']));
            }
        }
        $flat = [];
        foreach ($this->lines($project, $surfaces) as [$role, $surface, $vertices, $closed, $drawn]) {
            $layer = strtoupper("{$surface}-{$role}");
            $dxf->layer($layer, self::COLOURS[$role]);
            $dxf->polyline3d($layer, $vertices, $closed);
            if ($drawn) {
                $flat[] = "$role of $surface";
            }
        }
        foreach ($this->contours($project, $surfaces) as [$surface, $levels, $interval]) {
            foreach ($levels as $level) {
                $isIndex = 0 === (int) round($level['h'] / $interval) % self::INDEX_EVERY;
                $layer = strtoupper($surface.($isIndex ? '-CONTOURS-INDEX' : '-CONTOURS'));
                $dxf->layer($layer, self::COLOURS[$isIndex ? 'index' : 'contour']);
                foreach ($level['lines'] as $line) {
                    $dxf->contour($layer, array_map(static fn (array $p): array => [$p[0], $p[1]], array_chunk($line, 2)), $level['h']);
                }
            }
        }

        return new Written('Drawing as DXF', ProjectPoints::fileName($project, 'drawing', 'dxf'), $dxf->contents(), [...$this->points->leftOut($project), ...([] === $flat ? [] : ['heights of drawn lines, written at 0: '.implode(', ', $flat)])]);
    }

    public function check(Project $project, array $surfaces, string $bytes): array
    {
        $points = $this->points->of($project);
        $drawing = DxfReader::read($bytes);
        $largest = \count($drawing['points']) === \count($points) ? 0.0 : \INF;
        foreach ($points as $i => $p) {
            $at = $drawing['points'][$i]['at'] ?? [\INF, \INF, \INF];
            $largest = max($largest, abs($at[0] - $p['e']), abs($at[1] - $p['n']), abs($at[2] - ($p['h'] ?? 0.0)));
        }
        $names = array_column(array_filter($drawing['texts'], static fn (array $t): bool => 'POINT-NAMES' === $t['layer']), 'text');
        $checks = [
            Receipt::count('points', \count($points), \count($drawing['points'])),
            Receipt::difference('coordinates', $largest, 0.000001),
            Receipt::count('names in order', \count($points), \count(array_filter(array_keys($points), static fn (int $i): bool => ($names[$i] ?? null) === $points[$i]['name']))),
        ];
        if ([] !== $surfaces) {
            $isContour = static fn (array $l): bool => str_contains($l['layer'], '-CONTOURS');
            $checks[] = Receipt::count('lines of surfaces', \count($this->lines($project, $surfaces)), \count(array_filter($drawing['lines'], static fn (array $l): bool => !$isContour($l))));
            $expected = 0;
            $length = 0.0;
            foreach ($this->contours($project, $surfaces) as [, $levels]) {
                foreach ($levels as $level) {
                    $expected += \count($level['lines']);
                    $length += $level['length'];
                }
            }
            $found = array_filter($drawing['lines'], $isContour);
            foreach ($found as $line) {
                for ($i = 1, $n = \count($line['vertices']); $i < $n; ++$i) {
                    $length -= hypot($line['vertices'][$i][0] - $line['vertices'][$i - 1][0], $line['vertices'][$i][1] - $line['vertices'][$i - 1][1]);
                }
            }
            $checks[] = Receipt::count('contours', $expected, \count($found));
            $checks[] = Receipt::difference('total length of contours', abs($length), 0.05);
        }

        return $checks;
    }

    /**
     * @param list<int> $surfaces
     *
     * @return list<array{string, string, list<array{float, float, float}>, bool, bool}> role, surface name, vertices, closed, drawn without heights
     */
    private function lines(Project $project, array $surfaces): array
    {
        $heights = array_column($this->points->of($project), null, 'name');
        $lines = [];
        foreach ($surfaces as $surface) {
            $row = $this->row($project, $surface);
            foreach (SurfaceDefinition::fromJson($row['definition'])->lines as $line) {
                $vertices = [];
                foreach ($line['points'] as $name) {
                    $vertices[] = [$heights[$name]['e'], $heights[$name]['n'], $heights[$name]['h'] ?? 0.0];
                }
                foreach ($line['vertices'] as $v) {
                    $vertices[] = [$v[0], $v[1], 0.0];
                }
                $lines[] = [$line['role'], $row['name'], $vertices, 'breakline' !== $line['role'], [] !== $line['vertices']];
            }
        }

        return $lines;
    }

    /**
     * @param list<int> $surfaces
     *
     * @return list<array{string, list<array{h: float, length: float, lines: list<list<float>>}>, float}>
     */
    private function contours(Project $project, array $surfaces): array
    {
        $current = $this->results->current($project);
        $all = [];
        foreach ($surfaces as $surface) {
            $result = $current['surface:'.$surface] ?? throw new UnusableInput('/surfaces', 'a chosen surface is not computed yet');
            /** @var list<array{h: float, length: float, lines: list<list<float>>}> $levels */
            $levels = $this->store->getJson($result['summary']['contours']);
            $all[] = [$this->row($project, $surface)['name'], $levels, (float) $result['summary']['interval']];
        }

        return $all;
    }

    /** @return array{name: string, definition: string} */
    private function row(Project $project, int $surface): array
    {
        $row = $this->connection->fetchAssociative('SELECT name, definition FROM surface WHERE id = ? AND project_id = ?', [$surface, $project->id()]);

        return false === $row ? throw new UnusableInput('/surfaces', 'there is no such surface') : ['name' => (string) $row['name'], 'definition' => (string) $row['definition']];
    }
}
