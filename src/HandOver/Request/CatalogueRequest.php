<?php

declare(strict_types=1);

namespace App\HandOver\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** The types of a feature catalogue. */
final readonly class CatalogueRequest
{
    /**
     * @param list<array{
     *     code: string, alias: string, kind: string, symbol: string, style: string, colour: string, logging: string, every: float,
     *     positions: int, solution: string, accuracy: float,
     *     attributes: list<array{
     *         name: string, kind: string, required: bool, options: list<string>, default: string, least: ?float, most: ?float,
     *         decimals: int, number: ?float, unit: string, length: int, isFilled: bool,
     *     }>,
     * }> $types
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        #[Assert\Length(max: 400)]
        public string $scope = '',
        #[Assert\Count(max: 1000)]
        public array $types = [],
    ) {
    }
}
