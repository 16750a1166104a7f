<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Project\Project;
use App\Survey\PointRepository;
use App\Terrain\View\SurfacePreviewView;
use Mensura\Exchange\MeshBytes\MeshCodec;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\Contours;

/** A surface as it would be, while it is being chosen: computed by the same steps, kept nowhere. */
final class SurfacePreview
{
    /** Points whose surface is shown while one chooses; more take longer than a hand waits. */
    private const MOST = 20_000;

    /** Contours that are drawn on a preview. */
    private const MOST_LEVELS = 400;

    public function __construct(private readonly PointRepository $points, private readonly SurfaceShape $shape)
    {
    }

    public function of(Project $project, SurfaceDefinition $definition): SurfacePreviewView
    {
        $rows = iterator_to_array($this->points->onGrid($project), false);
        $count = 0;
        foreach ($rows as $p) {
            $count += (int) $definition->selection->takes($p);
        }
        try {
            $said = [];
            if (null !== $definition->cloud) {
                [$ofCloud, $spacing] = $this->shape->coarser($project, $definition, self::MOST);
                $count += $ofCloud;
                if (null === $spacing) {
                    return new SurfacePreviewView($count, 0, null, [], [], null);
                }
                if ($spacing > ($definition->cloud->spacing ?? 0.0)) {
                    $definition = $definition->thinned($spacing);
                    $said = [\sprintf('shown with one point of the cloud in %.2f m', $spacing)];
                }
            } elseif (null === $definition->design && $count > self::MOST) {
                return new SurfacePreviewView($count, 0, null, [], [], null);
            }
            [$tin, $warnings] = $this->shape->read($project, $definition, $rows)();
            array_unshift($warnings, ...$said);
        } catch (UnusableInput $e) {
            return new SurfacePreviewView($count, 0, null, [], [], $e->getMessage());
        }
        ['hMin' => $low, 'hMax' => $high] = $tin->statistics();
        $levels = ($high - $low) / $definition->interval > self::MOST_LEVELS ? []
            : Contours::of(SurfaceMaker::contoured($tin, $definition), $definition->interval);
        $mesh = base64_encode(MeshCodec::encode($tin));

        return new SurfacePreviewView($count, $tin->triangleCount(), $mesh, $levels, $warnings, null);
    }
}
