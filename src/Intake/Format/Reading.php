<?php

declare(strict_types=1);

namespace App\Intake\Format;

use App\Intake\View\ColumnView;
use App\Intake\View\FieldView;
use App\Intake\View\UnitAskView;
use App\Survey\ImportedObservation;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Exchange\Delimited\PointRecord;

/** A file as it is understood now: what it would bring, and what must be answered first. */
interface Reading
{
    public function kind(): FileKind;

    /** @return array<string, int> what the file holds, for people */
    public function counts(): array;

    /** Usable records. */
    public function size(): int;

    /** @return list<PointRecord> */
    public function points(): array;

    /** @return iterable<ImportedObservation> */
    public function observations(): iterable;

    /** Lines that cannot be used. */
    public function leftOut(): int;

    /** @return list<Finding> */
    public function findings(): array;

    /** What is missing before anything can be read, in words; null when nothing is. */
    public function missing(): ?string;

    /** @return list<UnitAskView> one for each kind of quantity whose unit stands nowhere */
    public function unitsAsked(): array;

    /** Whether a control list says anywhere what is held or how precise it is; that nothing is held is said too. */
    public function statesControl(): bool;

    /** Whether it must be asked which of the two plan columns is the easting. */
    public function asksOrder(): bool;

    /** Whether places are latitudes and longitudes. */
    public function isGeographic(): bool;

    /** "ellipsoidal" or "geoid" where the file says which its heights are. */
    public function heightsSaid(): ?string;

    public function hasHeights(): bool;

    /** @return array<string, mixed> what is kept with the file once it is accepted */
    public function kept(): array;

    /** @return list<ColumnView> */
    public function columns(): array;

    /** @return list<FieldView> */
    public function fields(): array;
}
