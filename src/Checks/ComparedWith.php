<?php

declare(strict_types=1);

namespace App\Checks;

use App\Design\CloudFiles;
use App\Design\DesignFiles;
use App\Project\Project;
use Mensura\Deviation\CloudReference;
use Mensura\Deviation\ElevationReference;
use Mensura\Deviation\FittedPlane;
use Mensura\Deviation\MeshReference;
use Mensura\Deviation\Reference;
use Mensura\Fault\UnusableInput;
use Mensura\Mesh\Mesh;

/** What measured places are compared with, made from what a comparison is made of. */
final class ComparedWith
{
    public function __construct(
        private readonly MeasuredPlaces $measured,
        private readonly DesignFiles $designs,
        private readonly CloudFiles $clouds,
        private readonly ComputedSurfaces $surfaces,
    ) {
    }

    /**
     * @param list<float> $x of the measured places
     * @param list<float> $y
     * @param list<float> $z
     *
     * @return array{Reference, string} and what it is, in words
     *
     * @throws UnusableInput
     */
    public function of(Project $project, DeviationSettings $settings, array $x, array $y, array $z): array
    {
        switch ($settings->reference) {
            case DeviationSettings::SURFACE:
                [$tin, $words] = $this->surfaces->tin($project, $settings->surface, '/surface');

                return [new MeshReference(Mesh::of($tin->x, $tin->y, $tin->z, $tin->triangles)), $words];
            case DeviationSettings::DESIGN:
                $metre = DesignFiles::METRES[$settings->unit];
                [$mesh, $faces] = $this->designs->mesh($project, $settings->design, $settings->layers, $metre);
                if ('' === $settings->unit) {
                    UnitDoubt::refuse($mesh, $x, $y);
                }
                $words = \sprintf('%d faces of %s', $faces, $this->designs->named($project, $settings->design));

                return [new MeshReference($mesh), $words.([] === $settings->layers ? '' : ', '.implode(', ', $settings->layers))];
            case DeviationSettings::CLOUD:
                [$cx, $cy, $cz, $name] = $this->clouds->points($project, $settings->cloud, '/cloud');
                $reference = new CloudReference($cx, $cy, $cz, $settings->radius);

                return [$reference, \sprintf('%d points of %s, planes within %.3f m', \count($cx), $name, $reference->radius)];
            case DeviationSettings::PLANE:
                if ([] !== $settings->planeCodes) {
                    [, $x, $y, $z] = $this->measured->coded($project, $settings->planeCodes, '');
                }
                $words = \sprintf('the plane through %d points%s', \count($x), [] === $settings->planeCodes ? ' themselves' : '');

                return [FittedPlane::through($x, $y, $z), $words];
            default:
                return [new ElevationReference($settings->elevation), \sprintf('the elevation %.3f m', $settings->elevation)];
        }
    }
}
