<?php

declare(strict_types=1);

namespace App\Checks;

use App\Design\DesignFiles;
use Mensura\Fault\UnusableInput;
use Mensura\Mesh\Mesh;

/** Whether a design may be drawn in another unit than metres, by its size and place beside what was measured. */
final class UnitDoubt
{
    /** Relative; what is measured reaches nearly to the edges of what is designed. */
    private const LIKE = 0.1;
    private const NAMES = ['ft' => 'feet', 'mm' => 'millimetres'];

    /**
     * @param list<float> $x of the measured points
     * @param list<float> $y
     *
     * @throws UnusableInput naming the unit it may be drawn in
     */
    public static function refuse(Mesh $mesh, array $x, array $y): void
    {
        if ([] === $x || [] === $y || [] === $mesh->x || [] === $mesh->y) {
            return;
        }
        $drawn = [min($mesh->x), max($mesh->x), min($mesh->y), max($mesh->y)];
        $measured = [min($x), max($x), min($y), max($y)];
        $isApart = $drawn[1] < $measured[0] || $drawn[0] > $measured[1];
        foreach (self::NAMES as $unit => $name) {
            $metre = DesignFiles::METRES[$unit];
            $fits = self::isLike($metre * ($drawn[1] - $drawn[0]), $measured[1] - $measured[0])
                && self::isLike($metre * ($drawn[3] - $drawn[2]), $measured[3] - $measured[2])
                || $isApart && $metre * $drawn[1] > $measured[0] && $metre * $drawn[0] < $measured[1]
                    && $metre * $drawn[3] > $measured[2] && $metre * $drawn[2] < $measured[3];
            if ($fits) {
                throw new UnusableInput('/unit', \sprintf(
                    'the design is %.2f times as large as metres would make it beside what was measured, as if it were drawn in %s; '
                    .'say what it is drawn in', 1.0 / $metre, $name,
                ));
            }
        }
    }

    private static function isLike(float $drawn, float $measured): bool
    {
        return $measured > 0.0 && abs($drawn / $measured - 1.0) < self::LIKE;
    }
}
