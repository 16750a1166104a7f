<?php

declare(strict_types=1);

namespace App\Terrain\Section;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\Project\Project;
use Mensura\Exchange\Dxf\DxfReader;
use Mensura\Exchange\Dxf\DxfWriter;

/**
 * A profile and its cross-sections as a drawing: station to the right, height upwards, metres, not exaggerated; the
 * cross-sections below the profile, one under the other.
 */
final readonly class SectionDxf implements OffersChoice
{
    private const GAP = 10.0;
    private const TEXT = 0.5;

    public function __construct(private SectionDrawing $drawing)
    {
    }

    public static function key(): string
    {
        return 'section-dxf';
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Sections as DXF', 'Draw the sections', 'section', 'dxf', 'image/vnd.dxf', 'Sections',
            'a profile with its cross-sections, a layer a surface', 43, 1,
        );
    }

    public function choices(Project $project): array
    {
        return $this->drawing->choices($project);
    }

    public function restsOn(array $surfaces): array
    {
        return [[], [SectionMaker::PREFIX.($surfaces[0] ?? 0)]];
    }

    public function write(Project $project, array $surfaces, string $path): array
    {
        [$result, $d] = $this->drawing->of($project, $surfaces);
        $dxf = new DxfWriter();
        $low = (float) ($result->summary['low'] ?? 0.0);
        $height = (float) ($result->summary['high'] ?? 0.0) - $low;
        $dxf->layer('TITLES', 7);
        $dxf->layer('POINTS', 8);
        foreach ($d['surfaces'] as $k => $s) {
            $layer = self::layer($s['name']);
            $dxf->layer($layer, 1 + $k % 6);
            self::pieces($dxf, $layer, $s['pieces'], $d['start'], 0.0);
        }
        $dxf->text('TITLES', $d['start'], $low - 2.0 * self::TEXT, 0.0, self::TEXT, (string) $result->summary['name']);
        foreach ($d['points'] as $p) {
            $dxf->point('POINTS', $d['start'] + $p['station'], $p['h'], 0.0);
            $dxf->text('POINTS', $d['start'] + $p['station'], $p['h'], 0.0, 0.5 * self::TEXT, $p['name']);
        }
        foreach ($d['crosses'] as $i => $c) {
            $down = -($i + 1) * ($height + self::GAP);
            foreach ($c['surfaces'] as $k => $pieces) {
                self::pieces($dxf, self::layer($d['surfaces'][$k]['name']), $pieces, 0.0, $down);
            }
            $dxf->text('TITLES', 0.0, $low + $down - 2.0 * self::TEXT, 0.0, self::TEXT, \sprintf('station %.3f', $c['station']));
        }
        $dxf->save($path);

        return [];
    }

    public function check(Project $project, array $surfaces, string $path): array
    {
        [, $d] = $this->drawing->of($project, $surfaces);
        $lines = 0;
        foreach ($d['surfaces'] as $s) {
            $lines += \count($s['pieces']);
        }
        foreach ($d['crosses'] as $c) {
            foreach ($c['surfaces'] as $pieces) {
                $lines += \count($pieces);
            }
        }
        $back = ['line' => 0, 'point' => 0, 'text' => 0];
        foreach (DxfReader::entities($path) as $entity) {
            $back[$entity->kind] = ($back[$entity->kind] ?? 0) + 1;
        }

        return [
            Check::count('lines cut', $lines, $back['line']), Check::count('points', \count($d['points']), $back['point']),
            Check::count('titles', 1 + \count($d['points']) + \count($d['crosses']), $back['text']),
        ];
    }

    /** @param list<list<array{float, float}>> $pieces */
    private static function pieces(DxfWriter $dxf, string $layer, array $pieces, float $right, float $up): void
    {
        foreach ($pieces as $piece) {
            $dxf->polyline3d($layer, array_map(static fn (array $v): array => [$right + $v[0], $up + $v[1], 0.0], $piece));
        }
    }

    private static function layer(string $name): string
    {
        return strtoupper(trim((string) preg_replace('/[^A-Za-z0-9]+/', '-', $name), '-')) ?: 'SURFACE';
    }
}
