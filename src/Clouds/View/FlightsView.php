<?php

declare(strict_types=1);

namespace App\Clouds\View;

/** The photo flights of a project. */
final readonly class FlightsView
{
    /**
     * @param list<FlightView>                                                           $flights
     * @param list<OrthoView>                                                            $orthos
     * @param list<array{id: int, name: string, images: int, isGroup: bool}>                    $missions that came in
     * @param list<array{name: string, role: string, e: float, n: float, h: float}>      $points   control and check points
     */
    public function __construct(public array $flights, public array $orthos, public array $missions, public array $points)
    {
    }
}
