<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

/** The way from a system's datum to another system that a definition itself carries (WKT2 BOUNDCRS, PROJ towgs84 or nadgrids). */
final readonly class Binding
{
    /**
     * @param string       $target geodetic system it leads to, "EPSG:4326"
     * @param list<string> $grids   NTv2 files tried in order, when it goes by grids
     */
    public function __construct(public string $target, public ?Helmert $helmert, public array $grids = [])
    {
    }
}
