<?php

declare(strict_types=1);

namespace App\Clouds\Group;

use App\Clouds\Flight\FlightFiles;
use App\Clouds\Flight\FlightMaker;
use App\Clouds\Flight\FlightPage;
use App\Clouds\Flight\FlightSettings;
use App\Clouds\Flight\OrthoMaker;
use App\Clouds\View\RaysView;
use App\Project\Project;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Fault\UnusableInput;
use Mensura\Rays\ImageRays;
use Mensura\Rays\RayMatch;

/** Places picked in the images of an adjusted group or flight. */
final class GroupRays
{
    /** Tie points about a place that say how well its images are known there. */
    private const ABOUT = 8;
    /** Pixels beyond which a ray speaks against the others. */
    private const OFF = 2.5;

    public function __construct(
        private readonly FlightPage $flights, private readonly FlightFiles $files, private readonly FileStore $store,
        private readonly Results $results,
    ) {
    }

    /**
     * @param list<array{image: string, x: float, y: float}> $given
     * @param bool                                           $find  whether the others are searched for what the first shows
     *
     * @throws UnusableInput
     */
    public function of(Project $project, int $number, array $given, bool $find): RaysView
    {
        $slot = FlightMaker::PREFIX.$number;
        if (isset($this->results->stale($project)[$slot])) {
            throw new UnusableInput('/number', 'the orientation of these images is stale; adjust them again first');
        }
        $flight = $this->flights->all($project, FlightMaker::PREFIX)[$number];
        [$mission] = $this->files->mission($project, FlightSettings::fromArray($flight->settings)->mission);
        $figures = $this->store->getJson($flight->output);
        $rays = new ImageRays(OrthoMaker::oriented($mission, $figures));
        $names = $mission->files;
        $taken = $this->taken($given, array_flip($names), $rays);
        $alike = [];
        [$first, $x, $y] = $taken[0];
        $between = $rays->depths($first, $x, $y, $figures['tiePoints']);
        if ($find && null !== $between) {
            $paths = $this->files->paths($project, $mission);
            $match = new RayMatch($rays, static fn (int $i): \GdImage => (null === $paths[$i] ? null : imagecreatefromjpeg($paths[$i]))
                ?: throw new UnusableInput($names[$i], 'is not among the photos any more'));
            $taken = [$taken[0]];
            foreach ($match->find($first, $x, $y, $between) as [$image, $u, $v, $score]) {
                $alike[$image] = round($score, 3);
                $taken[] = [$image, round($u, 2), round($v, 2)];
            }
        }
        $met = $rays->meet($taken);
        $views = $lines = $shows = [];
        foreach ($taken as $k => [$image, $u, $v]) {
            [$dx, $dy] = $met[2][$k] ?? [null, null];
            $views[] = ['image' => $names[$image], 'x' => $u, 'y' => $v, 'dx' => $dx, 'dy' => $dy, 'alike' => $alike[$image] ?? null];
        }
        $has = array_column($taken, 0, 0);
        foreach (array_keys($rays->images->positions) as $i) {
            $line = null === $between || $i === $first ? [] : $rays->line($first, $x, $y, $i, ...$between);
            if (\count($line) > 1) {
                $lines[] = ['image' => $names[$i], 'line' => $line];
            }
            $pixel = null === $met || isset($has[$i]) ? null : $rays->images->pixel($i, ...$met[0]);
            if (null !== $pixel) {
                $shows[] = ['image' => $names[$i], 'x' => $pixel[0], 'y' => $pixel[1]];
            }
        }
        $sd = null === $met ? null : self::sd($met[0], $met[1], $figures['tiePoints'], $figures['tieSds'] ?? []);

        $mistaken = $rays->mistaken($taken, self::OFF);

        return new RaysView(
            $views, $met[0] ?? null, $sd, null === $mistaken ? null : $names[$taken[$mistaken][0]], $lines, $shows,
        );
    }

    /**
     * @param list<array{image: string, x: float, y: float}> $given
     * @param array<string, int>                             $numbers
     *
     * @return non-empty-list<array{int, float, float}>
     *
     * @throws UnusableInput naming a ray that cannot be used
     */
    private function taken(array $given, array $numbers, ImageRays $rays): array
    {
        $taken = $seen = [];
        foreach ($given as $k => $ray) {
            $image = $numbers[$ray['image']] ?? -1;
            if (!isset($rays->images->positions[$image])) {
                throw new UnusableInput("/rays/$k/image", \sprintf('%s is no oriented image of these', $ray['image']));
            }
            if (isset($seen[$image])) {
                throw new UnusableInput("/rays/$k/image", \sprintf('%s has a ray already', $ray['image']));
            }
            if ($ray['x'] > $rays->images->width || $ray['y'] > $rays->images->height) {
                $words = 'lies outside the image, %d by %d pixels';
                throw new UnusableInput("/rays/$k", \sprintf($words, $rays->images->width, $rays->images->height));
            }
            $seen[$image] = true;
            $taken[] = [$image, (float) $ray['x'], (float) $ray['y']];
        }

        return [] === $taken ? throw new UnusableInput('/rays', 'are none; pick a place in an image') : $taken;
    }

    /**
     * Of the rays, and of what the images are known to: as tie points about the place have it, which the adjustment knows in full.
     *
     * @param array{float, float, float} $place
     * @param array{float, float, float} $ofRays
     * @param list<float>                $ties
     * @param list<float>                $sds
     *
     * @return list<float>
     */
    private static function sd(array $place, array $ofRays, array $ties, array $sds): array
    {
        $apart = [];
        foreach (array_chunk($ties, 3) as $k => $p) {
            $apart[$k] = hypot(hypot($p[0] - $place[0], $p[1] - $place[1]), $p[2] - $place[2]);
        }
        asort($apart);
        $least = [\INF, \INF, \INF];
        foreach (\array_slice(array_keys($apart), 0, self::ABOUT) as $k) {
            foreach ([0, 1, 2] as $axis) {
                // The best known of them has the least of its own rays in it.
                $least[$axis] = min($least[$axis], $sds[3 * $k + $axis] ?? \INF);
            }
        }

        return array_map(static fn (float $a, float $b): float => is_finite($b) ? hypot($a, $b) : $a, $ofRays, $least);
    }
}
