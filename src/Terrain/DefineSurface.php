<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Ledger\EditedMeanwhile;
use App\Ledger\Journal;
use App\Ledger\LedgerEntryRepository;
use App\Ledger\Operation;
use App\Project\Project;
use Mensura\Fault\UnusableInput;

/** Makes a surface's definition, or changes it. */
final class DefineSurface implements Operation
{
    private ?Surface $surface = null;

    /**
     * @param ?int    $existing surface that is changed
     * @param ?string $seen     version of it that was edited; null where the editor does not say
     */
    public function __construct(
        private readonly SurfaceRepository $surfaces,
        private readonly LedgerEntryRepository $entries,
        private readonly string $surfaceName,
        private readonly SurfaceDefinition $definition,
        private readonly ?int $existing = null,
        private readonly ?string $seen = null,
    ) {
    }

    public function name(): string
    {
        return 'define-surface';
    }

    public function title(): string
    {
        return (null === $this->existing ? 'Defined surface ' : 'Changed surface ').$this->surfaceName;
    }

    public function detail(): array
    {
        return $this->definition->toArray();
    }

    public function apply(Project $project, Journal $journal): void
    {
        $same = $this->surfaces->named($project, $this->surfaceName);
        if (null !== $same && $same->id() !== $this->existing) {
            throw new UnusableInput('/name', \sprintf('there is a surface "%s" already', $this->surfaceName));
        }
        if (null === $this->existing) {
            $this->surface = new Surface($project, $this->surfaceName, $this->definition);
            $this->surfaces->add($this->surface);

            return;
        }
        $this->surface = $this->surfaces->in($project, $this->existing) ?? throw new UnusableInput('', 'the surface is not there any more');
        $version = $this->surface->version();
        if (null !== $this->seen && (string) $version !== $this->seen) {
            $entry = $version > 0 ? $this->entries->numbered($project, $version) : null;
            $theirs = ['name' => $this->surface->name()] + $this->surface->definition()->toArray();
            throw new EditedMeanwhile('Surface '.$this->surface->name(), $entry, $theirs, (string) $version);
        }
        $this->surface->define($this->surfaceName, $this->definition);
    }

    /** Database id of the surface. */
    public function id(): int
    {
        return (int) $this->surface?->id();
    }
}
