<?php

declare(strict_types=1);

namespace App\HandOver\Catalogue;

use App\HandOver\Kept\Definition;
use Mensura\Exchange\FeatureCatalogue\FeatureCatalogue;
use Mensura\Fault\UnusableInput;

/** A catalogue as it is kept: what the open file holds. */
final readonly class CatalogueDefinition implements Definition
{
    public function __construct(public FeatureCatalogue $catalogue)
    {
    }

    /**
     * @param array<mixed> $d
     *
     * @throws UnusableInput naming the field
     */
    public static function fromArray(array $d): self
    {
        return new self(FeatureCatalogue::fromArray($d));
    }

    public function toArray(): array
    {
        return $this->catalogue->toArray();
    }
}
