<?php

declare(strict_types=1);

namespace App\Intake\Format\Photo;

use App\Intake\Format\NothingAsked;
use App\Intake\Format\Reading;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Exchange\Delimited\PointRecord;
use Mensura\Exchange\Photo\PhotoExif;

/** A photo: its size, and where it says it was taken. It brings no point; the place shows where it lies. */
final readonly class PhotoReading implements Reading
{
    use NothingAsked;

    public function __construct(private PhotoExif $photo, private string $name)
    {
    }

    public function kind(): FileKind
    {
        return FileKind::Photo;
    }

    public function counts(): array
    {
        return ['pixels across' => $this->photo->width, 'pixels down' => $this->photo->height];
    }

    public function size(): int
    {
        return 1;
    }

    public function points(): array
    {
        $p = $this->photo;
        if (null === $p->latitude) {
            return [];
        }

        return [new PointRecord(1, $this->name, null, null, $p->latitude, $p->longitude, null, '', '', [null, null, null])];
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
        $words = 'it does not say where it was taken';

        return null === $this->photo->latitude ? [new Finding(Finding::WARNING, null, $words)] : [];
    }

    public function missing(): ?string
    {
        return null;
    }

    public function isGeographic(): bool
    {
        return true;
    }

    public function hasHeights(): bool
    {
        return false;
    }

    public function kept(): array
    {
        return array_filter(get_object_vars($this->photo), static fn (mixed $v): bool => null !== $v && '' !== $v);
    }
}
