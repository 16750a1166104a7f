<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Clouds\Flight\OrthoMaker;
use App\Design\PointProducts;
use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Exchange\Look\Looked;
use Mensura\Exchange\Look\Systems;
use Mensura\Exchange\Look\TiffLook;
use Mensura\Fault\UnusableInput;

/** Clouds and heights of flights as points, for check points to be held against. */
final class MadePoints implements PointProducts
{
    /** What is compared at once. */
    private const MOST = 3_000_000;

    public function __construct(private readonly Results $results, private readonly FileStore $store)
    {
    }

    public function names(Project $project): array
    {
        $names = [];
        foreach ($this->results->current($project) as $slot => $result) {
            if (str_starts_with($slot, CloudMaker::PREFIX)) {
                $names[$slot] = 'cloud '.$result->summary['name'];
            } elseif (str_starts_with($slot, OrthoMaker::PREFIX)) {
                $names[$slot] = 'heights of flight '.$result->summary['of'];
            }
        }

        return $names;
    }

    public function points(Project $project, string $slot, string $pointer): array
    {
        $name = $this->names($project)[$slot] ?? throw new UnusableInput($pointer, 'there is no such cloud, and no such heights');
        if (isset($this->results->stale($project)[$slot])) {
            throw new UnusableInput($pointer, 'is stale; make it again first');
        }
        $result = $this->results->current($project)[$slot];
        [$x, $y, $z] = str_starts_with($slot, CloudMaker::PREFIX) ? $this->cloud($result, $pointer) : $this->heights($result);

        return [$x, $y, $z, $name];
    }

    /**
     * @return array{list<float>, list<float>, list<float>}
     *
     * @throws UnusableInput
     */
    private function cloud(Result $cloud, string $pointer): array
    {
        if ((int) $cloud->summary['points'] > self::MOST) {
            $words = '%s holds %d points; up to %d are compared at once: make a thinned one of it first';
            throw new UnusableInput($pointer, \sprintf($words, $cloud->summary['name'], $cloud->summary['points'], self::MOST));
        }
        $x = $y = $z = [];
        $reader = CloudReader::open($this->store->localPath((string) $cloud->summary['las']), (string) $cloud->summary['name']);
        foreach ($reader->blocks() as $block) {
            array_push($x, ...$block->x);
            array_push($y, ...$block->y);
            array_push($z, ...$block->z);
        }

        return [$x, $y, $z];
    }

    /** @return array{list<float>, list<float>, list<float>} middles of the cells that have a height */
    private function heights(Result $ortho): array
    {
        $folder = WorkFolder::make();
        try {
            $zip = new \ZipArchive();
            $zip->open($this->store->localPath($ortho->output), \ZipArchive::RDONLY);
            $zip->extractTo($folder->path, OrthoMaker::HEIGHTS);
            $zip->close();
            $x = $y = $z = [];
            TiffLook::read(
                new Looked('geotiff'), $folder->path.'/'.OrthoMaker::HEIGHTS, new Systems(), OrthoMaker::HEIGHTS,
                static function (array $place) use (&$x, &$y, &$z): void {
                    [$x[], $y[], $z[]] = $place;
                },
            );

            return [$x, $y, $z];
        } finally {
            $folder->clear();
        }
    }
}
