<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Exchange\Dxf\DxfRecord;

/** Is given what a look goes through, so that the same file need not be gone through twice. */
interface Tap
{
    /**
     * A row of a table that is counted.
     *
     * @param list<string>                $cells
     * @param array{float, float, ?float} $place
     * @param list<string>                $headings none where there are none
     * @param list<int>                   $taken    columns that are the place
     */
    public function row(array $cells, array $place, array $headings, array $taken): void;

    public function record(DxfRecord $record): void;
}
