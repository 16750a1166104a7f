<?php

declare(strict_types=1);

namespace App\Result;

use App\Project\Project;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/**
 * Something of a project that results rest on directly: points, observations, a definition. Equal contents have equal
 * versions, so undoing a change makes results fresh again.
 */
#[AutoconfigureTag('app.content')]
interface Content
{
    /** Name in a result's inputs, before a colon where there are several: "points", "surface". */
    public static function kind(): string;

    /** Hash of the contents as they are now. */
    public function version(Project $project, string $which): string;

    /** As a sentence names it: "control coordinates". */
    public function words(): string;

    /** @return list<string> where it came from and who decided what about it, for the lineage */
    public function origin(Project $project): array;
}
