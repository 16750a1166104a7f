<?php

declare(strict_types=1);

namespace App\Export;

use App\Project\Project;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** A table that can stand on a drawing sheet: residuals, volumes. Stages give them. */
#[AutoconfigureTag('app.sheet_table')]
interface SheetTable
{
    /** In definitions: "volumes". */
    public static function key(): string;

    public function title(): string;

    /** @return list<string> prefixes of the slots it is read from: "volume:" */
    public function slots(): array;

    /** @return array{list<array{string, float, string}>, list<list<string>>} heading, part of the width, "L" or "R"; rows */
    public function rows(Project $project): array;
}
