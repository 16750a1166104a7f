<?php

declare(strict_types=1);

namespace App\Checks;

use App\Design\CloudFiles;
use App\Project\Project;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;

/** What is measured: points of the project, the vertices of a surface, or a point cloud. */
final class MeasuredPlaces
{
    public function __construct(
        private readonly PointRepository $points,
        private readonly CloudFiles $clouds,
        private readonly ComputedSurfaces $surfaces,
    ) {
    }

    /**
     * @return array{list<string>, list<float>, list<float>, list<float>} names (none where they have none), easting, northing, height
     *
     * @throws UnusableInput
     */
    public function of(Project $project, DeviationSettings $settings): array
    {
        switch ($settings->measured) {
            case DeviationSettings::CLOUD:
                [$x, $y, $z] = $this->clouds->points($project, $settings->measuredCloud, '/measuredCloud');

                return [[], $x, $y, $z];
            case DeviationSettings::SURFACE:
                [$tin] = $this->surfaces->tin($project, $settings->measuredSurface, '/measuredSurface');
                $x = $y = $z = [];
                // A vertex that no triangle uses is no part of the surface.
                $used = array_fill_keys($tin->triangles, true);
                ksort($used);
                foreach (array_keys($used) as $v) {
                    $x[] = $tin->x[$v];
                    $y[] = $tin->y[$v];
                    $z[] = $tin->z[$v];
                }

                return [[], $x, $y, $z];
            default:
                $chosen = $this->coded($project, $settings->codes, $settings->pattern);

                return [] !== $chosen[0] ? $chosen
                    : throw new UnusableInput('/codes', 'no point with a height is chosen; look at the codes and the pattern of names');
        }
    }

    /**
     * @param list<string> $codes
     *
     * @return array{list<string>, list<float>, list<float>, list<float>}
     */
    public function coded(Project $project, array $codes, string $pattern): array
    {
        $names = $x = $y = $z = [];
        foreach ($this->points->onGrid($project) as $p) {
            if (DeviationSettings::takes($p, $codes, $pattern)) {
                $names[] = $p->name;
                $x[] = (float) $p->e;
                $y[] = (float) $p->n;
                $z[] = (float) $p->h;
            }
        }

        return [$names, $x, $y, $z];
    }
}
