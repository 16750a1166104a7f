<?php

declare(strict_types=1);

namespace App\Checks;

use App\Project\Project;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Exchange\MeshBytes\MeshCodec;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\Tin;

/** Surfaces as they are computed now. */
final class ComputedSurfaces
{
    public const PREFIX = 'surface:';

    public function __construct(private readonly Results $results, private readonly FileStore $store)
    {
    }

    /**
     * @return array{Tin, string} and what it is, in words
     *
     * @throws UnusableInput where there is none, or it is stale
     */
    public function tin(Project $project, int $number, string $pointer): array
    {
        $slot = self::PREFIX.$number;
        $surface = $this->results->current($project)[$slot]
            ?? throw new UnusableInput($pointer, 'this surface is not computed; compute it in Terrain first');
        if (isset($this->results->stale($project)[$slot])) {
            throw new UnusableInput($pointer, 'the surface is stale; recompute it first');
        }

        return [MeshCodec::decode($this->store->get($surface->output)), $surface->inWords()];
    }
}
