<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

use Mensura\Reference\Crs\Area;
use Mensura\Reference\Grid\GeoidGrid;

/** What may be said about the way from one system to another. */
final readonly class RouteSettings
{
    /**
     * @param ?GeoidGrid $geoid    the model heights above the geoid refer to
     * @param ?Area      $area     one way for this whole area, instead of the best for every position
     * @param ?float     $epoch    decimal year for parameters that move with time
     * @param bool       $fallBack allow a way less accurate than one whose grid is missing, or none at all
     * @param ?string    $prefer   name of the candidate to use, when it is among them
     */
    public function __construct(
        public ?GeoidGrid $geoid = null,
        public ?Area $area = null,
        public ?float $epoch = null,
        public bool $fallBack = false,
        public ?string $prefer = null,
    ) {
    }
}
