<?php

declare(strict_types=1);

namespace App\Intake\Names;

/** A mark another name may mean, and how far it is from there: metres, null where one of the two has no place. */
final readonly class Mark
{
    public function __construct(public string $name, public string $where, public ?float $plan, public ?float $height)
    {
    }
}
