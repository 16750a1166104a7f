<?php

declare(strict_types=1);

namespace App\Intake\Format\Trajectory;

use App\Intake\Format\KnownByExtent;
use App\Intake\Format\Reading;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Passes\Trajectory;

/** A trajectory as it was counted; its rows stay in the file. In the project's own coordinates. */
final readonly class TrajectoryReading implements Reading
{
    use KnownByExtent;

    public function __construct(private Trajectory $trajectory)
    {
    }

    public function kind(): FileKind
    {
        return FileKind::Trajectory;
    }

    public function counts(): array
    {
        return ['rows' => $this->size()];
    }

    public function size(): int
    {
        return \count($this->trajectory->times);
    }

    public function findings(): array
    {
        return [];
    }

    public function missing(): ?string
    {
        return null;
    }

    public function kept(): array
    {
        $t = $this->trajectory;

        return [
            'rows' => $this->size(), 'length' => $t->length(), 'from' => $t->times[0], 'to' => $t->times[$this->size() - 1],
            'extent' => [min($t->e), min($t->n), min($t->h), max($t->e), max($t->n), max($t->h)],
        ];
    }
}
