<?php

declare(strict_types=1);

namespace App\Reference;

use App\Ledger\Journal;
use App\Project\Project;
use App\Reference\Request\ReferenceRequest;
use App\Survey\PointRepository;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Text\WktWriter;

/** Makes the operations of the Reference stage. */
final class ReferenceOperations
{
    public function __construct(
        private readonly PointRepository $points,
        private readonly ProjectReference $references,
        private readonly Localizations $localizations,
        private readonly Followers $followers,
        private readonly CustomSystemRepository $systems,
        private readonly LocalizationRepository $kept,
        private readonly GridFileRepository $grids,
    ) {
    }

    public function change(ReferenceRequest $to): ChangeReference
    {
        return new ChangeReference($this->points, $this->references, $this->followers, $to);
    }

    public function apply(int $localization): ApplyLocalization
    {
        return new ApplyLocalization($this->points, $this->references, $this->localizations, $this->followers, $localization);
    }

    public function keepSystem(string $name, HorizontalSystem $system, string $title): Keep
    {
        $text = WktWriter::write(new CoordinateSystem(ProjectReference::named($system, $name)));
        $make = static fn (Project $project, Journal $journal): CustomSystem => new CustomSystem($project, $name, $text, $journal->at);

        return new Keep($this->systems, 'custom-system', $name, $title, $make, ['wkt' => $text]);
    }

    /** @param string $file the localization as its open file */
    public function keepLocalization(string $name, string $file, string $title): Keep
    {
        $make = static fn (
            Project $project, Journal $journal,
        ): KeptLocalization => new KeptLocalization($project, $name, $file, $journal->at);

        return new Keep($this->kept, 'localization', $name, $title, $make);
    }

    /** @param array<string, mixed> $detail */
    public function keepGrid(string $operation, NewGrid $grid, string $title, array $detail): Keep
    {
        $make = static fn (Project $project, Journal $journal): GridFile => new GridFile(
            $project, $grid->name, $grid->kind, $grid->origin, $grid->sha256, $grid->size, $grid->info, $journal->at,
        );

        return new Keep($this->grids, $operation, $grid->name, $title, $make, $detail);
    }
}
