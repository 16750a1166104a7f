<?php

declare(strict_types=1);

namespace App\Clouds\Export;

use App\Clouds\Flight\FlightPage;
use App\Clouds\Flight\OrthoMaker;
use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\Project\Project;
use App\Result\Result;
use App\Store\FileStore;
use Mensura\Exchange\Look\Looked;
use Mensura\Exchange\Look\Systems;
use Mensura\Exchange\Look\TiffLook;
use Mensura\Fault\UnusableInput;
use Symfony\Component\Filesystem\Filesystem;

/** Heights and orthoimage of a flight as GeoTIFF, in a zip. */
final readonly class OrthoExport implements OffersChoice
{
    public function __construct(private FlightPage $flights, private FileStore $store)
    {
    }

    public static function key(): string
    {
        return 'ortho';
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Orthoimage and heights', 'Write the orthoimage', 'ortho', 'zip', 'application/zip', 'Orthoimage of a flight',
            'an orthoimage and the heights beneath it as GeoTIFF', 24, 1, 'GeoTIFF',
        );
    }

    public function choices(Project $project): array
    {
        return array_map(static fn (Result $r): string => (string) $r->summary['name'], $this->flights->all($project, OrthoMaker::PREFIX));
    }

    public function restsOn(array $chosen): array
    {
        return [[], [OrthoMaker::PREFIX.($chosen[0] ?? 0)]];
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        (new Filesystem())->copy($this->store->localPath($this->chosen($project, $chosen)->output), $path, true);
        $zip = new \ZipArchive();
        $zip->open($path);
        $zip->deleteName(OrthoMaker::PICTURE);
        $zip->close();

        return [];
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $summary = $this->chosen($project, $chosen)->summary;
        $files = new Filesystem();
        $folder = $path.'-back';
        $files->mkdir($folder);
        try {
            $zip = new \ZipArchive();
            $zip->open($path, \ZipArchive::RDONLY);
            $zip->extractTo($folder);
            $zip->close();
            $count = 0;
            $name = OrthoMaker::HEIGHTS;
            TiffLook::read(new Looked('geotiff'), "$folder/$name", new Systems(), $name, static function () use (&$count): void {
                ++$count;
            });
            $size = getimagesize("$folder/".OrthoMaker::IMAGE) ?: [0, 0];
        } finally {
            $files->remove($folder);
        }
        $cells = (int) round(($summary['box'][2] - $summary['box'][0]) / $summary['cell'])
            * (int) round(($summary['box'][3] - $summary['box'][1]) / $summary['cell']);

        return [
            Check::count('cells with a height', (int) round($summary['completeness'] * $cells), $count),
            Check::count('columns', (int) $summary['columns'], $size[0]), Check::count('rows', (int) $summary['rows'], $size[1]),
        ];
    }

    /** @param list<int> $chosen */
    private function chosen(Project $project, array $chosen): Result
    {
        return $this->flights->all($project, OrthoMaker::PREFIX)[$chosen[0] ?? 0]
            ?? throw new UnusableInput('/surfaces', 'are one orthoimage');
    }
}
