<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Ledger\Journal;
use App\Ledger\Prepared;
use App\Project\Project;
use App\Result\Basis;
use App\Result\Outcome;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Exchange\MeshBytes\MeshCodec;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\Volume;

/** Volume of a surface against an elevation. */
final class ComputeVolume implements Prepared
{
    public const KIND = 'volume';

    /** @var array{cut: float, fill: float, net: float, areaCut: float, areaFill: float, planArea: float}|array{} */
    private array $volume = [];
    private string $label = '';
    private ?Basis $basis = null;

    public function __construct(
        private readonly Results $results,
        private readonly FileStore $store,
        private readonly int $surface,
        private readonly float $elevation,
    ) {
    }

    public function name(): string
    {
        return 'compute-volume';
    }

    public function title(): string
    {
        return \sprintf('%s: cut %.1f m³, fill %.1f m³', $this->label, $this->volume['cut'] ?? 0.0, $this->volume['fill'] ?? 0.0);
    }

    public function detail(): array
    {
        return ['elevation' => $this->elevation] + $this->volume;
    }

    public function prepare(Project $project): void
    {
        $slot = 'surface:'.$this->surface;
        $surface = $this->results->current($project)[$slot] ?? throw new UnusableInput('', 'compute the surface first');
        if (isset($this->results->stale($project)[$slot])) {
            throw new UnusableInput('', 'the surface is stale; recompute it first');
        }
        $this->basis = new Basis([Result::RESULT.$slot => $surface->output]);
        $this->label = \sprintf('Volume of %s against %.3f m', $surface->inWords(), $this->elevation);
        $this->volume = Volume::againstElevation(MeshCodec::decode($this->store->get($surface->output)), $this->elevation);
    }

    public function apply(Project $project, Journal $journal): void
    {
        $basis = $this->basis ?? throw new \LogicException('Not prepared.');
        $settings = ['elevation' => $this->elevation];
        $output = hash('sha256', json_encode([$this->elevation, $this->volume], \JSON_THROW_ON_ERROR));
        $this->results->record($project, $journal, new Outcome(
            'volume:'.$this->surface, self::KIND, $this->label, $basis, $settings, $settings + $this->volume, $output,
        ));
    }
}
