<?php

declare(strict_types=1);

namespace App\Intake\Format\Flight;

use App\Intake\Format\NothingAsked;
use App\Intake\Format\Reading;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\PointRecord;
use Mensura\Exchange\FlightJson\Mission;

/** A mission: how many images, and where they were taken. It brings no point; the places show where it lies. */
final readonly class FlightReading implements Reading
{
    use NothingAsked;

    public function __construct(private Mission $mission)
    {
    }

    public function kind(): FileKind
    {
        return FileKind::Flight;
    }

    public function counts(): array
    {
        return ['images' => \count($this->mission->files)];
    }

    public function size(): int
    {
        return \count($this->mission->files);
    }

    public function points(): array
    {
        $m = $this->mission;

        return array_map(static fn (string $file, array $p, int $i): PointRecord => new PointRecord(
            $i + 1, $file, $p[0], $p[1], null, null, $p[2], '', '', [null, null, null],
        ), $m->files, $m->positions, array_keys($m->files));
    }

    public function observations(): iterable
    {
        return [];
    }

    public function leftOut(): int
    {
        return 0;
    }

    public function findings(): array
    {
        return [];
    }

    public function missing(): ?string
    {
        return null;
    }

    public function heightsSaid(): ?string
    {
        return $this->mission->heights;
    }

    public function hasHeights(): bool
    {
        return true;
    }

    public function kept(): array
    {
        return ['flight' => $this->mission->name, 'images' => \count($this->mission->files), 'isGroup' => $this->mission->isGroup];
    }
}
