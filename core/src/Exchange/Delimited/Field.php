<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/** One thing a file of some kind says in a column. */
final readonly class Field
{
    /**
     * @param 'text'|'length'|'angle'|'variance' $quantity
     * @param list<string>                       $headings lower case, letters and digits only
     */
    public function __construct(
        public string $key,
        public string $label,
        public string $quantity,
        public bool $required,
        public array $headings,
    ) {
    }

    /** What shares its unit: lengths of one file are rarely mixed, precisions stand apart from them. */
    public function group(): string
    {
        return str_starts_with($this->key, 'sd_') ? 'precision' : $this->quantity;
    }
}
