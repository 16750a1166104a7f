<?php

declare(strict_types=1);

namespace App\Api;

/** Rows of one view class as columns of bytes, for tables of thousands. The layout is in docs/formats.md. */
final class PackedRows
{
    private const AT_ONCE = 4096;

    /** @var array<string, PackedColumn> by the property they hold */
    private array $columns = [];

    private int $count = 0;

    /** @var list<object> rows whose columns are packed together */
    private array $waiting = [];

    /** @param class-string $view its properties are the columns, their types say how they are packed */
    public function __construct(string $view)
    {
        foreach ((new \ReflectionClass($view))->getProperties(\ReflectionProperty::IS_PUBLIC) as $property) {
            $type = $property->getType();
            $kind = match ($type instanceof \ReflectionNamedType ? $type->getName() : '') {
                'float' => PackedColumn::NUMBER,
                'int' => PackedColumn::WHOLE,
                'string' => PackedColumn::TEXT,
                'bool' => PackedColumn::FLAG,
                default => throw new \LogicException("$view::{$property->name} has no type that can be packed."),
            };
            $this->columns[$property->name] = new PackedColumn($kind);
        }
    }

    public function add(object $row): void
    {
        $this->waiting[] = $row;
        if (self::AT_ONCE === \count($this->waiting)) {
            $this->pack();
        }
    }

    /**
     * @return array{count: int, columns: list<array{name: string, kind: string, texts?: list<string>}>} what one needs
     * to know to read the bytes
     */
    public function about(): array
    {
        $this->pack();
        $columns = [];
        foreach ($this->columns as $name => $column) {
            $texts = PackedColumn::TEXT === $column->kind ? ['texts' => $column->texts()] : [];
            $columns[] = ['name' => $name, 'kind' => $column->kind] + $texts;
        }

        return ['count' => $this->count, 'columns' => $columns];
    }

    /** Column after column, as listed by {@see about()}. */
    public function bytes(): string
    {
        $this->pack();
        $bytes = '';
        foreach ($this->columns as $column) {
            $bytes .= $column->bytes();
        }

        return $bytes;
    }

    private function pack(): void
    {
        foreach ([] === $this->waiting ? [] : $this->columns as $name => $column) {
            $column->add(array_column($this->waiting, $name));
        }
        $this->count += \count($this->waiting);
        $this->waiting = [];
    }
}
