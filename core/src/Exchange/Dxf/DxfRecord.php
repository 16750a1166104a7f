<?php

declare(strict_types=1);

namespace Mensura\Exchange\Dxf;

/** One record of a DXF: an entity, an entry of a table, the beginning of a section. */
final class DxfRecord
{
    /**
     * @param list<int>    $codes  its group codes, without the 0 it begins with
     * @param list<string> $values of them
     * @param int          $line   it begins on
     */
    public function __construct(
        public readonly string $section, public readonly string $type, private readonly array $codes, private readonly array $values,
        public readonly int $line,
    ) {
    }

    /** @return array<int, string> the first value of each group code */
    public function first(): array
    {
        return array_combine(array_reverse($this->codes), array_reverse($this->values));
    }

    /** @return list<array{int, string}> all of them, in order */
    public function groups(): array
    {
        $groups = [];
        foreach ($this->codes as $i => $code) {
            $groups[] = [$code, $this->values[$i]];
        }

        return $groups;
    }
}
