<?php

declare(strict_types=1);

namespace App\Intake\Format;

use Mensura\Exchange\Delimited\PointRecord;

/** Of a file whose points stay in it: where it lies is asked of the corners of all of them. */
trait KnownByExtent
{
    use NothingAsked;

    public function points(): array
    {
        $extent = $this->kept()['extent'] ?? null;
        if (null === $extent || null === $extent[0] || null === $extent[3]) {
            return [];
        }
        [$w, $s, $low, $e, $n, $high] = $extent;
        $corners = [
            'south-west' => [$w, $s, $low], 'south-east' => [$e, $s, $low],
            'north-east' => [$e, $n, $high], 'north-west' => [$w, $n, $high],
        ];

        return array_map(static fn (string $corner, array $p): PointRecord => new PointRecord(
            1, "its $corner corner", $p[0], $p[1], null, null, $p[2], '', '', [null, null, null],
        ), array_keys($corners), array_values($corners));
    }

    public function observations(): iterable
    {
        return [];
    }

    public function leftOut(): int
    {
        return 0;
    }

    public function hasHeights(): bool
    {
        return true;
    }
}
