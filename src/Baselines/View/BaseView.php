<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** What a base correction can start from. */
final readonly class BaseView
{
    /**
     * @param list<BaseFileView>    $files
     * @param list<BasePlaceView>   $sessions places from processed baselines
     * @param float                 $epoch    decimal year proposed
     */
    public function __construct(public array $files, public array $sessions, public float $epoch, public bool $hasGeoid)
    {
    }
}
