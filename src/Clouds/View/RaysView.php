<?php

declare(strict_types=1);

namespace App\Clouds\View;

/** Rays of a group of images, and where they meet. Metres, pixels. */
final readonly class RaysView
{
    /**
     * @param list<array{image: string, x: float, y: float, dx: ?float, dy: ?float, alike: ?float}> $rays  with what the place is off them
     *                                                                                                    and how alike a found one is
     * @param ?list<float>                                                                          $place e, n, h
     * @param ?list<float>                                                                          $sd    of it, with what the images are
     *                                                                                                    known to
     * @param list<array{image: string, line: list<array{float, float}>}> $lines on which the others show the first
     * @param ?string                                                                               $mistaken image whose ray speaks against
     *                                                                                                    the others
     * @param list<array{image: string, x: float, y: float}>                                        $shows where images without a ray show
     *                                                                                                    the place
     */
    public function __construct(
        public array $rays, public ?array $place, public ?array $sd, public ?string $mistaken, public array $lines, public array $shows,
    ) {
    }
}
