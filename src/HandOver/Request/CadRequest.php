<?php

declare(strict_types=1);

namespace App\HandOver\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What goes to drawing programs, and onto which layers. */
final readonly class CadRequest
{
    /**
     * @param list<string>                                                         $roles
     * @param list<string>                                                         $codes
     * @param bool                                                                 $blocks    points as blocks with attributes
     * @param bool                                                                 $texts     names beside points as text
     * @param list<array{id: int, contours: bool, lines: bool, faces: bool}>       $surfaces
     * @param list<array{file: int, layer: string}>                                $layers
     * @param list<array{file: int, name: string}>                                 $alignments
     * @param int                                                                  $catalogue that gives colours and line types by code
     * @param list<array{from: string, to: string, colour: string, style: string}> $mapping   of layers
     * @param list<array{e: float, n: float}>                                      $within    corners of what is taken; empty for all
     * @param bool                                                                 $codeLines lines that codes draw by that catalogue
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        public string $format = 'dxf',
        public array $roles = [],
        public array $codes = [],
        public bool $blocks = true,
        public bool $texts = false,
        public array $surfaces = [],
        public array $layers = [],
        public array $alignments = [],
        public int $catalogue = 0,
        public array $mapping = [],
        public bool $codeLines = false,
        public array $within = [],
    ) {
    }
}
