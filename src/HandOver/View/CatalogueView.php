<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** A feature catalogue as it is edited, and its versions. */
final readonly class CatalogueView
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
     * @param list<ExportView> $files versions, the newest first
     */
    public function __construct(
        public int $id,
        public int $version,
        public string $name,
        public string $scope,
        public array $types,
        public array $files,
    ) {
    }
}
