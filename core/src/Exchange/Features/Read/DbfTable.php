<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Read;

/** Rows of a dBASE table (version III, as beside shapefiles). */
final class DbfTable
{
    /** @var list<array{string, string, int, int, int}> name, type, begin, width, decimals */
    private array $fields = [];

    private int $head = 0;
    private int $width = 0;
    private bool $isUtf8;

    public function __construct(private readonly string $bytes, string $cpg)
    {
        if (\strlen($bytes) < 32) {
            return;
        }
        $this->head = (int) ((array) unpack('v', $bytes, 8))[1];
        $this->width = (int) ((array) unpack('v', $bytes, 10))[1];
        $this->isUtf8 = 1 === preg_match('/utf-?8|65001/i', $cpg) || '' === $cpg && 0 === \ord($bytes[29]);
        $begin = 1;
        for ($at = 32; $at + 32 <= min($this->head, \strlen($bytes)) && "\r" !== $bytes[$at]; $at += 32) {
            $name = substr($bytes, $at, 11);
            $size = \ord($bytes[$at + 16]);
            $text = $this->text(substr($name, 0, strcspn($name, "\0")));
            $this->fields[] = [$text, $bytes[$at + 11], $begin, $size, \ord($bytes[$at + 17])];
            $begin += $size;
        }
    }

    /** @return array<string, string|int|float|bool|null> */
    public function row(int $number): array
    {
        $at = $this->head + $number * $this->width;
        if ([] === $this->fields || $at + $this->width > \strlen($this->bytes)) {
            return [];
        }
        $row = [];
        foreach ($this->fields as [$name, $type, $begin, $size, $decimals]) {
            $text = rtrim(substr($this->bytes, $at + $begin, $size), " \0");
            $row[$name] = match (true) {
                '' === trim($text) => null,
                \in_array($type, ['N', 'F'], true) && is_numeric(trim($text)) => $decimals > 0 || !ctype_digit(ltrim(trim($text), '-'))
                    ? (float) trim($text) : (int) trim($text),
                'L' === $type => '?' === trim($text) ? null : \in_array(strtoupper(trim($text)), ['T', 'Y'], true),
                default => $this->text($text),
            };
        }

        return $row;
    }

    private function text(string $bytes): string
    {
        return $this->isUtf8 && mb_check_encoding($bytes, 'UTF-8') ? $bytes : (string) mb_convert_encoding($bytes, 'UTF-8', 'Windows-1252');
    }
}
