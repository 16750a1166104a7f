<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Project\Project;
use App\Reference\ProjectReference;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;
use Mensura\Network\Frame;

/** Places of marks on the earth, geocentric, and of places in the project: the two ways. Metres. */
final class MarkPlace
{
    /** @var array<int, Frame> */
    private array $frames = [];

    public function __construct(private readonly PointRepository $points, private readonly ProjectReference $references)
    {
    }

    /** @return ?array{float, float, float} null for a mark without coordinates known on the earth */
    public function of(Project $project, string $name): ?array
    {
        $point = '' === $name ? null : $this->points->named($project, $name);
        if ($project->isPlane() || null === $point?->e || null === $point->n || null === $point->h || 'global' !== $point->known) {
            return null;
        }

        return $this->geocentric($project, $point->e, $point->n, $point->h);
    }

    /** @return array{float, float, float} */
    public function geocentric(Project $project, float $e, float $n, float $h): array
    {
        return $this->frame($project)->geometry($e, $n, $h)['position'];
    }

    /**
     * @param array{float, float, float} $place geocentric
     *
     * @return ?array{float, float, float} easting, northing, height of the project; null in a plane project, and outside its system
     */
    public function inProject(Project $project, array $place): ?array
    {
        if ($project->isPlane()) {
            return null;
        }
        try {
            return $this->frame($project)->coordinates(...$place);
        } catch (UnusableInput) {
            return null;
        }
    }

    private function frame(Project $project): Frame
    {
        return $this->frames[$project->revision()] ??= $this->references->frame($project);
    }
}
