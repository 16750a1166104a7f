<?php

declare(strict_types=1);

namespace App\Reference\View;

/** A fitted localization. Lengths in metres, rotation in degrees clockwise, slopes in metres per metre. */
final readonly class FitView
{
    /**
     * @param array{
     *     shiftE: float, shiftN: float, rotation: float, scale: float, centreE: float, centreN: float, a: float,
     *     b: float, c: float,
     * } $values
     * @param array<string, float|null> $sd
     * @param list<array{
     *     name: string, e: float|null, n: float|null, h: float|null, horizontal: float|null,
     *     standardized: float|null, standardizedH: float|null, withoutE: float|null, withoutN: float|null,
     *     withoutH: float|null, gridE: float, gridN: float,
     * }> $rows
     * @param array{name: string, part: string, sigma: float, sigmaWithout: float, off: list<float>}|null $suspect
     * @param list<list<float>> $hull on the grid
     * @param list<array{name: string, distance: float}> $outside points known locally beyond the pairs' hull, metres
     */
    public function __construct(
        public array $values,
        public array $sd,
        public array $rows,
        public ?float $sigma,
        public ?float $sigmaH,
        public int $redundancy,
        public int $redundancyH,
        public ?array $suspect,
        public array $hull,
        public array $outside,
    ) {
    }
}
