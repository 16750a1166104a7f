<?php

declare(strict_types=1);

namespace App\Clouds\Export;

use App\Clouds\MadeClouds;
use App\Clouds\TileArchive;
use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\Project\Project;
use App\Reference\ProjectReference;
use App\Result\Result;
use App\Store\FileStore;
use App\Store\StoreFault;
use Mensura\Fault\UnusableInput;
use Symfony\Component\DependencyInjection\Attribute\Autowire;

/**
 * A cloud as a folder that any browser shows: a page, the viewer, and the tiles. From a web server all of it is shown; opened from a
 * disk, where a page may not read files, what stands in the page itself: the upper tiles.
 */
final readonly class CloudSite implements OffersChoice
{
    use OfOneCloud;

    /** Points of the tiles that stand in the page. */
    private const OVERVIEW = 300_000;
    private const TILES = 'tiles/';
    private const SET = 'tileset.json';

    public function __construct(
        private MadeClouds $clouds, private FileStore $store, private ProjectReference $references,
        #[Autowire('%kernel.project_dir%/public/build/viewer')]
        private string $viewer,
    ) {
    }

    public static function key(): string
    {
        return 'cloud-site';
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Cloud as a folder', 'Publish the cloud', 'cloud', 'zip', 'application/zip', 'Point cloud as a folder for browsers',
            'a page, a viewer, and a point cloud as 3D Tiles', 25, 1, 'folder',
        );
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        $cloud = $this->chosen($project, $chosen);
        $tiles = new \ZipArchive();
        $zip = new \ZipArchive();
        $isOpen = true === $tiles->open($this->store->localPath($cloud->output), \ZipArchive::RDONLY)
            && true === $zip->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
        if (!$isOpen) {
            throw StoreFault::full(null);
        }
        for ($i = 0; $i < $tiles->numFiles; ++$i) {
            $name = (string) $tiles->getNameIndex($i);
            $zip->addFromString(self::TILES.$name, (string) $tiles->getFromIndex($i));
            // Tiles are coordinates, which hardly grow smaller.
            $zip->setCompressionName(self::TILES.$name, str_ends_with($name, '.json') ? \ZipArchive::CM_DEFLATE : \ZipArchive::CM_STORE);
        }
        $zip->addFromString('index.html', $this->page($project, $cloud));
        $zip->addFromString('overview.js', 'window.overview = '.self::json($this->overview($cloud)).";\n");
        foreach (['viewer.js', 'licenses.txt'] as $name) {
            if (!is_file("{$this->viewer}/$name") || !$zip->addFile("{$this->viewer}/$name", $name)) {
                throw new UnusableInput('', 'the viewer is not built: run bin/mensura setup, then publish again');
            }
        }
        $tiles->close();
        if (!$zip->close()) {
            throw StoreFault::full(null);
        }

        return [];
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $cloud = $this->chosen($project, $chosen);
        $set = json_decode((string) TileArchive::file($path, self::TILES.self::SET), true, 512, \JSON_THROW_ON_ERROR);
        $points = 0;
        $size = 0;
        $each = static function (array $tile) use (&$each, &$points, &$size, $path): void {
            $bytes = (string) TileArchive::file($path, self::TILES.($tile['content']['uri'] ?? ''));
            $points += self::count($bytes);
            ++$size;
            array_map($each, $tile['children'] ?? []);
        };
        $each($set['root']);
        $zip = new \ZipArchive();
        $zip->open($path, \ZipArchive::RDONLY);

        return [
            Check::count('points', (int) $cloud->summary['points'], $points), Check::count('tiles', $size, $zip->numFiles - 5),
        ];
    }

    private function page(Project $project, Result $cloud): string
    {
        $s = $cloud->summary;
        $about = self::json([
            'name' => $s['name'], 'project' => $project->name(), 'reference' => $this->references->words($project), 'at' => $cloud->at(),
            'points' => $s['points'], 'extent' => $s['extent'], 'hasColours' => $s['hasColours'], 'hasIntensities' => $s['hasIntensities'],
        ]);
        $title = htmlspecialchars($s['name'].', '.$project->name(), \ENT_QUOTES | \ENT_SUBSTITUTE);

        return <<<HTML
            <!doctype html>
            <html lang="en">
            <meta charset="utf-8">
            <link rel="icon" href="data:,">
            <meta name="viewport" content="width=device-width, initial-scale=1">
            <title>$title</title>
            <body>
            <script>window.cloud = $about;</script>
            <script>if (location.protocol === 'file:') document.write('<script src="overview.js"><\\/script>');</script>
            <script src="viewer.js"></script>

            HTML;
    }

    /** @return array{tileset: array<mixed>, tiles: array<string, string>} the upper tiles, in base64 */
    private function overview(Result $cloud): array
    {
        $path = $this->store->pathOfParts($cloud->output);
        $set = json_decode((string) TileArchive::file($path, self::SET), true, 512, \JSON_THROW_ON_ERROR);
        $tiles = [];
        $points = 0;
        $level = [&$set['root']];
        while ([] !== $level) {
            $below = [];
            $bytes = [];
            foreach ($level as $k => $tile) {
                $bytes[$k] = (string) TileArchive::file($path, $tile['content']['uri'] ?? '');
            }
            $count = array_sum(array_map(self::count(...), $bytes));
            $isTaken = [] === $tiles || $points + $count <= self::OVERVIEW;
            foreach ($level as $k => &$tile) {
                if ($isTaken) {
                    $tiles[$tile['content']['uri']] = base64_encode($bytes[$k]);
                    foreach (array_keys($tile['children'] ?? []) as $c) {
                        $below[] = &$tile['children'][$c];
                    }
                } else {
                    $tile = null;
                }
            }
            unset($tile);
            $points += $count;
            $level = $below;
        }
        $prune = static function (array $tile) use (&$prune): array {
            if (isset($tile['children'])) {
                $tile['children'] = array_map($prune, array_values(array_filter($tile['children'])));
            }

            return $tile;
        };
        $set['root'] = $prune($set['root']);

        return ['tileset' => $set, 'tiles' => $tiles];
    }

    /** Points a .pnts tile says it holds. */
    private static function count(string $bytes): int
    {
        return 1 === preg_match('/"POINTS_LENGTH":(\d+)/', substr($bytes, 28, 200), $found) ? (int) $found[1] : 0;
    }

    /** @param array<mixed> $value */
    private static function json(array $value): string
    {
        return json_encode($value, \JSON_THROW_ON_ERROR | \JSON_HEX_TAG | \JSON_UNESCAPED_UNICODE);
    }
}
