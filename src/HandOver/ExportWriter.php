<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Project\Project;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

#[AutoconfigureTag('app.export_writer')]
interface ExportWriter
{
    public static function kind(): string;

    /** @param list<int> $surfaces */
    public function write(Project $project, array $surfaces): Written;

    /**
     * Reads the bytes back and compares them with what the project holds.
     *
     * @param list<int> $surfaces
     *
     * @return list<array{what: string, expected: string, found: string, holds: bool}>
     */
    public function check(Project $project, array $surfaces, string $bytes): array;
}
