<?php

declare(strict_types=1);

namespace App\HandOver\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What to hand over. */
final readonly class ExportRequest
{
    /**
     * @param list<int> $surfaces
     */
    public function __construct(
        #[Assert\Choice(['dxf', 'csv', 'pdf'])]
        public string $kind,
        #[Assert\Count(max: 100)]
        public array $surfaces = [],
    ) {
    }
}
