<?php

declare(strict_types=1);

namespace App\Clouds\Flight;

use App\Clouds\View\FlightsView;
use App\Clouds\View\FlightView;
use App\Clouds\View\MissionView;
use App\Clouds\View\OrthoView;
use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Exchange\FlightJson\Mission;
use Mensura\Fault\UnusableInput;
use Mensura\Flight\Coverage;
use Mensura\Flight\OrientedImages;
use Mensura\Image\Rotation;

/** The photo flights of a project, what their images show, and where a point is seen in them. */
final class FlightPage
{
    public function __construct(
        private readonly Results $results, private readonly FlightFiles $files, private readonly FileStore $store,
    ) {
    }

    public function of(Project $project): FlightsView
    {
        $stale = $this->results->stale($project);
        $flights = $orthos = [];
        foreach ($this->all($project, FlightMaker::PREFIX) as $number => $r) {
            $flights[] = self::flight($number, $r, $stale[$r->slot] ?? []);
        }
        foreach ($this->all($project, OrthoMaker::PREFIX) as $number => $r) {
            $orthos[] = self::ortho($number, $r, $stale[$r->slot] ?? []);
        }

        return new FlightsView($flights, $orthos, $this->files->missions($project), $this->files->markable($project));
    }

    /** @return array<int, Result> by number */
    public function all(Project $project, string $prefix): array
    {
        $all = [];
        foreach ($this->results->current($project) as $slot => $result) {
            if (str_starts_with($slot, $prefix)) {
                $all[$result->number()] = $result;
            }
        }
        ksort($all);

        return $all;
    }

    /** @throws UnusableInput */
    public function mission(Project $project, int $id): MissionView
    {
        [$mission, $positions, $rotations] = $this->files->mission($project, $id);
        [$images, $ground, $isOriented] = $this->images($project, $id, $mission, $positions, $rotations);
        $photos = $this->files->photos($project);
        $views = $footprints = [];
        foreach ($mission->files as $i => $file) {
            $footprints[] = $footprint = match (true) {
                !isset($images->positions[$i]) => [],
                $mission->isGroup => $images->frustum($i, $mission->above),
                default => $images->footprint($i, $ground),
            };
            [$e, $n, $h] = $images->positions[$i] ?? $positions[$i];
            $views[] = ['file' => $file, 'photo' => $photos[$file] ?? null, 'e' => $e, 'n' => $n, 'h' => $h, 'footprint' => $footprint];
        }
        $cover = Coverage::of($footprints);
        $area = $cover->area(1);

        return new MissionView(
            $id, $mission->name, $mission->isGroup, $mission->width, $mission->height, $mission->above, $isOriented,
            \count(array_filter($views, static fn (array $v): bool => null === $v['photo'])),
            $mission->isGroup ? $mission->above / $mission->camera[0] : $images->groundPixel($ground), $area,
            $area > 0.0 ? $cover->area(3) / $area : 0.0, $cover->forward, $views,
            ['e' => $cover->e, 'n' => $cover->n, 'count' => $cover->count, 'size' => $cover->size],
        );
    }

    /**
     * Where the images of a mission show a point: as they are oriented, or about there as the mission says.
     *
     * @return list<array{image: string, x: float, y: float}>
     *
     * @throws UnusableInput
     */
    public function shows(Project $project, int $id, string $point): array
    {
        [$mission, $positions, $rotations] = $this->files->mission($project, $id);
        $place = array_column($this->files->markable($project), null, 'name')[$point]
            ?? throw new UnusableInput('/point', 'there is no such control or check point');
        [$images] = $this->images($project, $id, $mission, $positions, $rotations);
        $shown = [];
        foreach (array_keys($images->positions) as $i) {
            $pixel = $images->pixel($i, $place['e'], $place['n'], $place['h']);
            if (null !== $pixel) {
                $shown[] = ['image' => $mission->files[$i], 'x' => round($pixel[0], 2), 'y' => round($pixel[1], 2)];
            }
        }

        return $shown;
    }

    /**
     * As the newest adjustment of the mission found them, while it is fresh; else as the mission says, looking straight down.
     *
     * @param list<array{float, float, float}> $positions
     * @param list<?list<float>>               $rotations
     *
     * @return array{OrientedImages, float, bool} the height of the ground, and whether they are oriented
     */
    private function images(Project $project, int $id, Mission $mission, array $positions, array $rotations): array
    {
        $stale = $this->results->stale($project);
        foreach (array_reverse($this->all($project, FlightMaker::PREFIX)) as $flight) {
            if ($id === FlightSettings::fromArray($flight->settings)->mission && !isset($stale[$flight->slot])) {
                $images = OrthoMaker::oriented($mission, $this->store->getJson($flight->output));

                return [$images, (float) $flight->summary['ground'], true];
            }
        }
        $rotations = array_map(static fn (?array $r): array => $r ?? Rotation::of(0.0, 0.0, 0.0), $rotations);
        $ground = array_sum(array_column($positions, 2)) / max(1, \count($positions)) - $mission->above;

        return [new OrientedImages($mission->camera, $positions, $rotations, $mission->width, $mission->height), $ground, false];
    }

    /** @param list<string> $stale */
    private static function flight(int $number, Result $r, array $stale): FlightView
    {
        $p = FlightSettings::fromArray($r->settings);
        $s = $r->summary;

        return new FlightView(
            $number, $p->name, (string) $s['of'], $p->mission, (int) $s['images'], (int) $s['joined'], $s['alone'], (int) $s['points'],
            (int) $s['rays'], (int) $s['left'], $s['sigma0'], $s['freeSigma0'], (int) $s['control'], (bool) $s['isHeld'],
            (int) $s['checks'],
            $s['rms'], (float) $s['pixel'], $s['swapped'], (bool) $s['converged'], $p->marks, $r->run, $r->output, $r->at(), $r->authorName,
            $stale,
        );
    }

    /** @param list<string> $stale */
    private static function ortho(int $number, Result $r, array $stale): OrthoView
    {
        $s = $r->summary;

        return new OrthoView(
            $number, (string) $s['name'], OrthoSettings::fromArray($r->settings)->flight, (string) $s['of'], (float) $s['cell'],
            (float) $s['pixel'], (int) $s['columns'], (int) $s['rows'], (float) $s['completeness'], $s['box'], $s['known'], $r->run,
            $r->output, $r->at(), $r->authorName, $stale,
        );
    }
}
