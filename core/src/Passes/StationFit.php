<?php

declare(strict_types=1);

namespace Mensura\Passes;

/** How the points of a station lay themselves onto the reference. Metres. */
final readonly class StationFit
{
    /**
     * @param array{float, float, float}  $shift
     * @param ?array{float, float, float} $sd
     * @param ?string                     $doubt    why it is not to be used
     * @param list<int>                   $agreeing points that fit
     */
    public function __construct(public array $shift, public ?array $sd, public ?string $doubt, public array $agreeing)
    {
    }
}
