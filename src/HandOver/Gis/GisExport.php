<?php

declare(strict_types=1);

namespace App\HandOver\Gis;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\Project\Project;
use App\Reference\ReferenceContent;
use App\Survey\AcceptedCoordinates;
use Mensura\Exchange\Features\Displacement;
use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureReader;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Features\FeatureWriters;
use Mensura\Fault\UnusableInput;
use Symfony\Component\Filesystem\Filesystem;

/** Points, lines and areas for information systems, in a zip with whatever belongs to the format. */
final class GisExport implements OffersChoice
{
    public const KEY = 'gis';

    /** Metres: half of a tenth of a millimetre. */
    private const ALLOWED = 0.00005;

    public function __construct(private readonly GisRepository $sets, private readonly GisSet $features)
    {
    }

    public static function key(): string
    {
        return self::KEY;
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'GIS set', 'Write the GIS set', 'gis', 'zip', 'application/zip', 'GIS set',
            'points, lines and areas known well enough, with the attributes that are chosen', 8, 1,
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
        return [['gis:'.($chosen[0] ?? 0), 'points', ReferenceContent::kind()], [AcceptedCoordinates::SLOT]];
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        $d = $this->definition($project, $chosen);
        [$set, $count] = $this->features->of($project, $d);
        if ([] === $set->features) {
            throw new UnusableInput('', self::empty($count));
        }
        $files = new Filesystem();
        $folder = $path.'-parts';
        $files->mkdir($folder);
        try {
            $lost = [];
            foreach (self::parts($set, $d->format) as $name => $part) {
                $file = "$folder/$name.$d->format";
                array_push($lost, ...FeatureWriters::for($file)->write($part, $file));
            }
            $zip = new \ZipArchive();
            $zip->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
            foreach (glob("$folder/*") ?: [] as $file) {
                $zip->addFile($file, basename($file));
            }
            $zip->close();
        } finally {
            $files->remove($folder);
        }

        return [...self::stayOut($count, $d), ...array_values(array_unique($lost))];
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $d = $this->definition($project, $chosen);
        [$meant] = $this->features->of($project, $d);
        $back = $this->back($path, $d->format);
        $checks = [];
        foreach ([Feature::POINT => 'points', Feature::LINE => 'lines', Feature::POLYGON => 'areas'] as $kind => $word) {
            $of = static fn (FeatureSet $s): int => \count(array_filter($s->features, static fn (Feature $f): bool => $kind === $f->kind));
            $checks[] = Check::count($word, $of($meant), $of($back));
        }

        return [...$checks, Check::difference('coordinates', Displacement::greatest($meant, $back), self::ALLOWED)];
    }

    /** What the files in the zip hold, one after the other. */
    private function back(string $path, string $format): FeatureSet
    {
        $folder = $path.'-back';
        $files = new Filesystem();
        $files->mkdir($folder);
        try {
            $zip = new \ZipArchive();
            $zip->open($path, \ZipArchive::RDONLY);
            $zip->extractTo($folder);
            $zip->close();
            $all = null;
            foreach (glob("$folder/*.$format") ?: [] as $file) {
                $set = FeatureReader::of($file, basename($file))->set;
                if (null === $all) {
                    $all = $set;
                } else {
                    array_push($all->features, ...$set->features);
                }
            }

            return $all ?? new FeatureSet();
        } finally {
            $files->remove($folder);
        }
    }

    /**
     * A shapefile holds one kind of geometry; the others hold all.
     *
     * @return array<string, FeatureSet> by the name of the file
     */
    private static function parts(FeatureSet $set, string $format): array
    {
        if ('shp' !== $format) {
            return ['features' => $set];
        }
        $parts = [];
        foreach ([Feature::POLYGON => 'areas', Feature::LINE => 'lines', Feature::POINT => 'points'] as $kind => $name) {
            $part = clone $set;
            $part->features = array_values(array_filter($set->features, static fn (Feature $f): bool => $kind === $f->kind));
            if ([] !== $part->features) {
                $parts[$name] = $part;
            }
        }

        return $parts;
    }

    /**
     * @param array{points: int, kept: int, worse: int, unknown: int, lines: int, areas: int} $count
     *
     * @return list<string>
     */
    private static function stayOut(array $count, GisDefinition $d): array
    {
        $limits = array_filter([
            null === $d->plan ? '' : \sprintf('%.3f m in plan', $d->plan), null === $d->up ? '' : \sprintf('%.3f m in height', $d->up),
        ]);

        return array_values(array_filter([
            0 === $count['worse'] ? '' : \sprintf('%d points known worse than %s', $count['worse'], implode(' or ', $limits)),
            0 === $count['unknown'] ? '' : \sprintf('%d points whose precision is not known', $count['unknown']),
        ]));
    }

    /** @param array{points: int, kept: int, worse: int, unknown: int, lines: int, areas: int} $count */
    private static function empty(array $count): string
    {
        return 0 === $count['points'] ? 'nothing is chosen: no point has these roles and codes, and no layer is chosen'
            : \sprintf('none of %d points is known well enough; allow more, or let those go along that nobody knows', $count['points']);
    }

    /** @param list<int> $chosen */
    private function definition(Project $project, array $chosen): GisDefinition
    {
        return $this->sets->in($project, $chosen[0] ?? 0)?->definition()
            ?? throw new UnusableInput('/surfaces', 'there is no such GIS set in the project');
    }
}
