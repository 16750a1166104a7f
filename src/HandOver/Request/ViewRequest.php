<?php

declare(strict_types=1);

namespace App\HandOver\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What a view of a drawing shows. */
final readonly class ViewRequest
{
    /**
     * @param list<string>                                                        $roles      of points; none for no points
     * @param list<string>                                                        $codes      of these; none for all
     * @param list<array{id: int, contours: bool, lines: bool}>                   $surfaces
     * @param list<array{file: int, layer: string, colour: string, width: float}> $layers     of drawings; millimetres of paper
     * @param list<string>                                                        $screenOnly layers that do not print
     * @param float                                                               $text       height of words, millimetres of paper
     * @param string                                                              $locked     as the view says it
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        public array $roles = [],
        public array $codes = [],
        public bool $names = true,
        public bool $heights = false,
        public array $surfaces = [],
        public array $layers = [],
        public array $screenOnly = [],
        public float $text = 1.8,
        public string $locked = '',
    ) {
    }
}
