<?php

declare(strict_types=1);

namespace App\Api;

/**
 * One column of packed rows. Numbers are 8 bytes each (IEEE 754, little endian, not a number for null), flags 1 byte;
 * whole numbers and places of texts in the list of those there are 4 bytes each, as differences from the row before
 * (modulo 2^32), which compression likes better; 2^32 - 1 stands for null.
 */
final class PackedColumn
{
    public const NUMBER = 'number';
    public const WHOLE = 'whole';
    public const TEXT = 'text';
    public const FLAG = 'flag';
    private const NONE = 0xFFFFFFFF;

    private string $bytes = '';

    private int $last = 0;

    /** @var array<int|string, int> */
    private array $texts = [];

    public function __construct(public readonly string $kind)
    {
    }

    /** @param list<mixed> $values of the kind */
    public function add(array $values): void
    {
        $this->bytes .= match ($this->kind) {
            self::NUMBER => pack('e*', ...array_map(static fn (?float $v): float => $v ?? \NAN, $values)),
            self::FLAG => pack('C*', ...$values),
            self::TEXT => $this->differences(array_map($this->place(...), $values)),
            default => $this->differences($values),
        };
    }

    /** @return list<string> */
    public function texts(): array
    {
        return array_map(strval(...), array_keys($this->texts));
    }

    public function bytes(): string
    {
        return $this->bytes;
    }

    private function place(?string $text): ?int
    {
        return null === $text ? null : $this->texts[$text] ??= \count($this->texts);
    }

    /** @param list<?int> $values */
    private function differences(array $values): string
    {
        $last = $this->last;
        $differences = [];
        foreach ($values as $value) {
            $value ??= self::NONE;
            if ($value < 0 || $value > self::NONE) {
                throw new \LogicException("$value is not a whole number that can be packed.");
            }
            $differences[] = ($value - $last) & self::NONE;
            $last = $value;
        }
        $this->last = $last;

        return pack('V*', ...$differences);
    }
}
