<?php

declare(strict_types=1);

namespace App\HandOver\Request;

use App\HandOver\Gis\GisDefinition;
use Symfony\Component\Validator\Constraints as Assert;

/** What goes to information systems. */
final readonly class GisRequest
{
    /**
     * @param list<string>                          $roles
     * @param list<string>                          $codes
     * @param ?float                                $plan       greatest standard deviation that goes along, metres
     * @param bool                                  $unknown    whether points go along whose precision nobody knows
     * @param list<array{file: int, layer: string}> $layers
     * @param list<string>                          $attributes
     * @param string                                $system     "EPSG:n"; empty for the project's own
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        public string $format = 'gpkg',
        public array $roles = [],
        public array $codes = [],
        public ?float $plan = null,
        public ?float $up = null,
        public bool $unknown = true,
        public array $layers = [],
        public array $attributes = GisDefinition::ATTRIBUTES,
        #[Assert\Length(max: 40)]
        public string $system = '',
    ) {
    }
}
