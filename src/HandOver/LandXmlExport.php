<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Export\Check;
use App\Export\DrawingSource;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\HandOver\Gis\PointFeatures;
use App\Project\Project;
use App\Reference\ReferenceContent;
use App\Survey\AcceptedCoordinates;
use Mensura\Exchange\Features\Displacement;
use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureReader;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Features\Write\LandXmlWriter;
use Mensura\Fault\UnusableInput;

/** Points with names and codes, and surfaces as they are triangulated, as LandXML 1.2. */
final class LandXmlExport implements OffersChoice
{
    /** Metres: coordinates are written to the last figure. */
    private const ALLOWED = 0.00001;

    /** What is held at once while it is read back. */
    private const MOST = 400_000;

    public function __construct(private readonly PointFeatures $points, private readonly DrawingSource $source)
    {
    }

    public static function key(): string
    {
        return 'landxml';
    }

    public function about(): ExportAbout
    {
        $holds = 'points with names and codes, surfaces as they are triangulated';

        return new ExportAbout(
            'Points and surfaces as LandXML', 'Write the LandXML', 'landxml', 'xml', 'application/xml', 'Points, surfaces', $holds, 21, 100,
            'LandXML',
        );
    }

    public function choices(Project $project): array
    {
        return $this->source->surfaces($project);
    }

    public function restsOn(array $surfaces): array
    {
        $slots = [AcceptedCoordinates::SLOT, ...array_map(static fn (int $s): string => 'surface:'.$s, $surfaces)];

        return [['points', ReferenceContent::kind()], $slots];
    }

    public function write(Project $project, array $surfaces, string $path): array
    {
        return [...$this->points->leftOut($project), ...(new LandXmlWriter())->write($this->features($project, $surfaces), $path)];
    }

    public function check(Project $project, array $surfaces, string $path): array
    {
        $meant = $this->features($project, $surfaces);
        $reader = FeatureReader::of($path, 'the file');
        [$look, $back] = [$reader->look, $reader->set];
        $faces = static fn (FeatureSet $set): int => \count(array_filter(
            $set->features, static fn (Feature $f): bool => Feature::FACE === $f->kind,
        ));
        [$wanted, $found] = [$faces($meant), $faces($back)];

        return [
            Check::count('points', \count($meant->features) - $wanted, \count($back->features) - $found),
            Check::count('surfaces', \count($surfaces), \count($look->surfaces)),
            Check::count('triangles', $wanted, $found),
            Check::difference('coordinates', Displacement::greatest($meant, $back), self::ALLOWED),
        ];
    }

    /** @param list<int> $surfaces */
    private function features(Project $project, array $surfaces): FeatureSet
    {
        $set = $this->points->of($project);
        // One unit holds for all of a LandXML file: heights are in that of the eastings.
        $unit = $this->points->unit($project);
        foreach (1.0 === $unit ? [] : $set->features as $f) {
            foreach ($f->parts as $k => [[[$x, $y, $h]]]) {
                $f->parts[$k] = [[[$x, $y, null === $h ? null : $h / $unit]]];
            }
        }
        foreach ($this->source->triangles($project, $surfaces) as $s) {
            if (\count($set->features) + intdiv(\count($s->triangles), 3) > self::MOST) {
                $words = 'these surfaces have more than %d triangles together with the points; hand them over one by one, or thinned';
                throw new UnusableInput('/surfaces', \sprintf($words, self::MOST));
            }
            foreach (array_chunk($s->triangles, 3) as $corners) {
                $ring = array_map(static fn (int $c): array => [$s->x[$c] / $unit, $s->y[$c] / $unit, $s->z[$c] / $unit], $corners);
                $set->features[] = new Feature(Feature::FACE, $s->surface, [[[...$ring, $ring[0]]]]);
            }
        }

        return $set;
    }
}
