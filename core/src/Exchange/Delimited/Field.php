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
}
