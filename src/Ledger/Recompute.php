<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Job\JobContext;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Computes results of one kind again, as they were computed before, from what is there now. */
#[AutoconfigureTag('app.recompute')]
interface Recompute
{
    public static function kind(): string;

    /** @param array{id: int, slot: string, kind: string, label: string, run: int, inputs: array<string, string>, settings: array<string, mixed>, summary: array<string, mixed>, output: string, author_name: string, created_at: string} $row the newest run */
    public function again(JobContext $context, array $row): void;
}
