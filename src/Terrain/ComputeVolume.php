<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Ledger\Results;
use App\Project\Project;
use App\Store\FileStore;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\Volume;

/** Volume of a surface against an elevation. */
final class ComputeVolume implements Operation
{
    public const KIND = 'volume';

    /** @var array<string, float> */
    private array $volume = [];
    private string $label = '';

    public function __construct(private readonly Results $results, private readonly FileStore $store, private readonly int $surface, private readonly float $elevation)
    {
    }

    public function name(): string
    {
        return 'compute-volume';
    }

    public function title(): string
    {
        return \sprintf('%s: cut %.1f m³, fill %.1f m³', $this->label, $this->volume['cut'], $this->volume['fill']);
    }

    public function detail(): array
    {
        return ['elevation' => $this->elevation] + $this->volume;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $surface = $this->results->current($project)['surface:'.$this->surface] ?? throw new UnusableInput('', 'compute the surface first');
        if (isset($this->results->stale($project)['surface:'.$this->surface])) {
            throw new UnusableInput('', 'the surface is stale; recompute it first');
        }
        $this->label = \sprintf('Volume of %s against %.3f m', lcfirst($surface['label']), $this->elevation);
        $this->volume = Volume::againstElevation(MeshCodec::decode($this->store->get($surface['output'])), $this->elevation);
        $this->results->record($project, $journal, 'volume:'.$this->surface, self::KIND, $this->label, [], ['surface:'.$this->surface], ['elevation' => $this->elevation], ['elevation' => $this->elevation] + $this->volume, hash('sha256', json_encode([$this->elevation, $this->volume], \JSON_THROW_ON_ERROR)));
    }
}
