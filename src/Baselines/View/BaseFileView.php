<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** A file of points that may have been measured from a base. */
final readonly class BaseFileView
{
    /**
     * @param list<string> $bases     points of it that may be its base
     * @param string       $corrected what was corrected already; empty where nothing was
     */
    public function __construct(public int $id, public string $name, public int $records, public array $bases, public string $corrected)
    {
    }
}
