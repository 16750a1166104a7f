<?php

declare(strict_types=1);

namespace App\HandOver\Cad;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\Project\Project;
use App\Reference\ProjectReference;
use App\Reference\ReferenceContent;
use App\Survey\AcceptedCoordinates;
use Mensura\Exchange\Dxf\DxfWriter;
use Mensura\Exchange\LandXml\LandXmlDesign;
use Mensura\Exchange\Look\FileLook;
use Mensura\Exchange\Look\Looked;
use Mensura\Fault\UnusableInput;
use Psr\Clock\ClockInterface;

/** A drawing as it was chosen: DXF with blocks, polylines in space and faces on their layers, or LandXML; in a zip. */
final class CadExport implements OffersChoice
{
    public const KEY = 'cad';
    private const TEXT_HEIGHT = 0.5;

    /** Metres: half of the last decimal. */
    private const ALLOWED = 0.000001;

    public function __construct(
        private readonly CadRepository $sets, private readonly CadParts $parts, private readonly ProjectReference $references,
        private readonly ClockInterface $clock,
    ) {
    }

    public static function key(): string
    {
        return self::KEY;
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Drawing set', 'Write the drawing set', 'cad', 'zip', 'application/zip', 'Drawing set',
            'blocks, lines in space, faces and contours on layers that are chosen', 9, 1,
        );
    }

    public function choices(Project $project): array
    {
        $names = [];
        foreach ($this->sets->of($project) as $set) {
            $names[$set->id()] = $set->name();
        }

        return $names;
    }

    public function restsOn(array $chosen): array
    {
        $d = $this->sets->find($chosen[0] ?? 0)?->definition();
        $slots = array_map(static fn (array $s): string => 'surface:'.$s['id'], $d->surfaces ?? []);

        return [['cad:'.($chosen[0] ?? 0), 'points', ReferenceContent::kind()], [AcceptedCoordinates::SLOT, ...$slots]];
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        $d = $this->definition($project, $chosen);
        $scene = $this->parts->of($project, $d);
        if ([] === $scene->layers && [] === $scene->alignments) {
            throw new UnusableInput('', 'nothing is chosen for this drawing: no point has these roles and codes, no surface, no layer');
        }
        $file = $path.'.'.$d->format;
        try {
            'dxf' === $d->format ? self::dxf($scene, $d, $file) : $this->landXml($project, $scene, $file);
            $zip = new \ZipArchive();
            $zip->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
            $zip->addFile($file, 'drawing.'.$d->format);
            $zip->close();
        } finally {
            @unlink($file);
        }
        $flat = \count(array_filter($scene->points, static fn (array $p): bool => null === $p['h']));

        return 'dxf' === $d->format && $flat > 0 ? [\sprintf('heights of %d points that have none, written at 0', $flat)] : [];
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $d = $this->definition($project, $chosen);
        $scene = $this->parts->of($project, $d);
        $file = $path.'.'.$d->format;
        try {
            $zip = new \ZipArchive();
            $zip->open($path, \ZipArchive::RDONLY);
            file_put_contents($file, (string) $zip->getFromName('drawing.'.$d->format));
            $zip->close();
            $look = FileLook::of($file, 'the drawing');
        } finally {
            @unlink($file);
        }
        $seen = $look->toArray();
        $layers = array_intersect(array_map(strval(...), array_keys($scene->layers)), array_column($seen['layers'], 'name'));
        $extent = $seen['extent'] ?? null;
        $meant = self::extent($scene, 'dxf' === $d->format && $d->blocks);
        $apart = null === $extent ? \INF : max(array_map(static fn (float $a, ?float $b): float => abs($a - ($b ?? \INF)), $meant, [
            $extent[0], $extent[1], $extent[3], $extent[4],
        ]));
        $lines = \count($scene->lines) + ('xml' === $d->format ? \count($scene->alignments) : 0);
        $checks = [
            Check::count('points', \count($scene->points), $look->counted(Looked::POINT)),
            Check::count('lines', $lines, $look->counted(Looked::LINE) + $look->counted(Looked::POLYGON)),
            Check::count('faces', $scene->faces(), $look->counted(Looked::FACE)),
            Check::difference('outermost places', $apart, self::ALLOWED),
        ];

        return 'dxf' === $d->format ? [...$checks, Check::count('layers', \count($scene->layers), \count($layers))] : $checks;
    }

    private static function dxf(CadScene $scene, CadDefinition $d, string $path): void
    {
        $dxf = new DxfWriter();
        foreach ($scene->layers as $name => $layer) {
            $dxf->layer((string) $name, $layer['colour'], $layer['style']);
        }
        foreach ($scene->points as $p) {
            $h = $p['h'] ?? 0.0;
            if ($d->blocks) {
                $height = null === $p['h'] ? '' : \sprintf('%.3F', $p['h']);
                $said = ['NAME' => $p['name'], 'HEIGHT' => $height, 'CODE' => $p['code']];
                $dxf->mark($p['layer'], $p['e'], $p['n'], $h, $said, self::TEXT_HEIGHT, $p['symbol']);
            } else {
                $dxf->point($p['layer'], $p['e'], $p['n'], $h);
            }
            if ($d->texts) {
                $at = [$p['e'] + self::TEXT_HEIGHT, $p['n'] + 0.2 * self::TEXT_HEIGHT];
                $dxf->text($p['layer'], $at[0], $at[1], $h, self::TEXT_HEIGHT, $p['name']);
            }
        }
        foreach ($scene->lines as $line) {
            if (null === $line['contour']) {
                $dxf->polyline3d($line['layer'], $line['vertices']);
            } else {
                $plan = array_map(static fn (array $v): array => [$v[0], $v[1]], $line['vertices']);
                $dxf->contour($line['layer'], $plan, $line['contour']);
            }
        }
        foreach ($scene->surfaces as $s) {
            foreach (array_chunk($s['triangles'], 3) as $corners) {
                $dxf->face($s['layer'], array_map(static fn (int $c): array => [$s['x'][$c], $s['y'][$c], $s['z'][$c]], $corners));
            }
        }
        $dxf->save($path);
    }

    private function landXml(Project $project, CadScene $scene, string $path): void
    {
        $system = $this->references->of($project);
        $xml = new LandXmlDesign($path, $project->name(), $this->clock->now());
        $xml->system($system->name ?? 'plane local system', null !== $system && 1.0 === $system->unit ? $system->code : null);
        $xml->points($scene->points);
        $xml->alignments($scene->alignments);
        $xml->lines($scene->lines);
        $xml->surfaces(array_map(
            static fn (array $s): array => [$s['name'], $s['x'], $s['y'], $s['z'], $s['triangles']], $scene->surfaces,
        ));
        $xml->close();
    }

    /** @return list<float> west, south, east, north of what is drawn */
    private static function extent(CadScene $scene, bool $hasSigns): array
    {
        $e = $n = [];
        foreach ($scene->points as $p) {
            $reach = $hasSigns ? DxfWriter::reach($p['symbol']) : [0.0, 0.0, 0.0, 0.0];
            array_push($e, $p['e'] + self::TEXT_HEIGHT * $reach[0], $p['e'] + self::TEXT_HEIGHT * $reach[2]);
            array_push($n, $p['n'] + self::TEXT_HEIGHT * $reach[1], $p['n'] + self::TEXT_HEIGHT * $reach[3]);
        }
        foreach ($scene->lines as $line) {
            array_push($e, ...array_column($line['vertices'], 0));
            array_push($n, ...array_column($line['vertices'], 1));
        }
        foreach ($scene->surfaces as $s) {
            foreach ($s['triangles'] as $c) {
                $e[] = $s['x'][$c];
                $n[] = $s['y'][$c];
            }
        }
        foreach ($scene->alignments as $a) {
            $chords = $a->chords();
            array_push($e, ...$chords->x);
            array_push($n, ...$chords->y);
        }

        return [] === $e || [] === $n ? [0.0, 0.0, 0.0, 0.0] : [min($e), min($n), max($e), max($n)];
    }

    /** @param list<int> $chosen */
    private function definition(Project $project, array $chosen): CadDefinition
    {
        return $this->sets->in($project, $chosen[0] ?? 0)?->definition()
            ?? throw new UnusableInput('/surfaces', 'there is no such drawing set in the project');
    }
}
