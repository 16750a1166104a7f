<?php

declare(strict_types=1);

namespace App\HandOver\Gis;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\ExportKind;
use App\Project\Project;
use App\Reference\ReferenceContent;
use App\Survey\AcceptedCoordinates;
use Mensura\Exchange\Features\Displacement;
use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureReader;
use Mensura\Exchange\Features\FeatureWriters;
use Mensura\Fault\UnusableInput;
use Symfony\Component\Filesystem\Filesystem;

/** The project's points as a file that geographic information systems open; written by what also converts files, and read back. */
abstract class GisPoints implements ExportKind
{
    /** Metres: half of a tenth of a millimetre. */
    private const ALLOWED = 0.00005;

    final public function __construct(private readonly PointFeatures $points)
    {
    }

    abstract protected function format(): GisFormat;

    public function about(): ExportAbout
    {
        $f = $this->format();
        $holds = 'every point with code, role, precision and source'.$f->remark;

        return new ExportAbout(
            "Points as $f->name", "Write the points as $f->name", 'points', $f->extension, $f->type, 'Points', $holds, $f->place,
            format: $f->name,
        );
    }

    public function restsOn(array $chosen): array
    {
        return [['points', ReferenceContent::kind()], [AcceptedCoordinates::SLOT]];
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        $format = $this->format();
        $set = $this->points->of($project, $format->system);
        if ([] === $set->features) {
            throw new UnusableInput('', 'the project has no point with a plan position in its system');
        }
        // Names of layers and companions come of the file's own name.
        $folder = $path.'-parts';
        $files = new Filesystem();
        $files->mkdir($folder);
        try {
            $file = "$folder/points.$format->ending";
            $lost = FeatureWriters::for($file)->write($set, $file);
            'zip' === $format->extension ? self::zipped($folder, $path) : $files->rename($file, $path, true);
        } finally {
            $files->remove($folder);
        }

        return [...$this->points->leftOut($project), ...$lost];
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $meant = $this->points->of($project, $this->format()->system);
        $reader = FeatureReader::of($path, 'points');
        [$look, $back] = [$reader->look, $reader->set];
        $names = static fn (array $features): array => array_map(
            static fn (Feature $f): string => (string) ($f->properties['name'] ?? ''), $features,
        );

        return [
            Check::count('points', \count($meant->features), \count($back->features)),
            Check::count('names', \count($meant->features), \count(array_intersect($names($meant->features), $names($back->features)))),
            Check::difference('coordinates', Displacement::greatest($meant, $back), self::ALLOWED),
        ];
    }

    private static function zipped(string $folder, string $path): void
    {
        $zip = new \ZipArchive();
        // A file of no bytes is there already, which is no zip.
        $zip->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
        foreach (glob("$folder/*") ?: [] as $file) {
            $zip->addFile($file, basename($file));
        }
        $zip->close();
    }
}
