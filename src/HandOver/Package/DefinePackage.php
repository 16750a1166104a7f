<?php

declare(strict_types=1);

namespace App\HandOver\Package;

use App\Ledger\EditedMeanwhile;
use App\Ledger\Journal;
use App\Ledger\LedgerEntryRepository;
use App\Ledger\Operation;
use App\Project\Project;
use Mensura\Fault\UnusableInput;

/** Makes what a package holds, or changes it. */
final class DefinePackage implements Operation
{
    private ?KeptPackage $package = null;

    /**
     * @param ?int    $existing package that is changed
     * @param ?string $seen     version of it that was edited; null where the editor does not say
     */
    public function __construct(
        private readonly PackageRepository $packages,
        private readonly LedgerEntryRepository $entries,
        private readonly string $packageName,
        private readonly PackageDefinition $definition,
        private readonly ?int $existing = null,
        private readonly ?string $seen = null,
    ) {
    }

    public function name(): string
    {
        return 'define-package';
    }

    public function title(): string
    {
        return (null === $this->existing ? 'Defined package ' : 'Changed package ').$this->packageName;
    }

    public function detail(): array
    {
        return $this->definition->toArray();
    }

    public function apply(Project $project, Journal $journal): void
    {
        $same = $this->packages->named($project, $this->packageName);
        if (null !== $same && $same->id() !== $this->existing) {
            throw new UnusableInput('/name', \sprintf('there is a package "%s" already', $this->packageName));
        }
        if (null === $this->existing) {
            $this->package = new KeptPackage($project, $this->packageName, $this->definition);
            $this->packages->add($this->package);

            return;
        }
        $package = $this->packages->in($project, $this->existing) ?? throw new UnusableInput('', 'the package is not there any more');
        if (null !== $this->seen && (string) $package->version() !== $this->seen) {
            $entry = $package->version() > 0 ? $this->entries->numbered($project, $package->version()) : null;
            $theirs = ['name' => $package->name()] + $package->definition()->toArray();
            throw new EditedMeanwhile('Package '.$package->name(), $entry, $theirs, (string) $package->version());
        }
        $package->define($this->packageName, $this->definition);
        $this->package = $package;
    }

    /** Database id of the package. */
    public function id(): int
    {
        return (int) $this->package?->id();
    }
}
