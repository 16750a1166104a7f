<?php

declare(strict_types=1);

namespace Mensura\Reference\Text;

/** One bracketed element of well-known text: keyword, and its strings, numbers, bare words and elements in order. */
final readonly class WktNode
{
    /** @param list<string|float|self> $items strings keep a leading quote mark off; bare words come as strings too */
    public function __construct(public string $keyword, public array $items, public int $offset)
    {
    }

    /** @throws UnreadableSystem */
    public static function parse(string $text): self
    {
        $at = 0;
        $node = self::element($text, $at);
        if ('' !== trim(substr($text, $at))) {
            throw self::broken($text, $at, 'something follows the closing bracket');
        }

        return $node;
    }

    public function child(string ...$keywords): ?self
    {
        foreach ($this->items as $item) {
            if ($item instanceof self && \in_array($item->keyword, $keywords, true)) {
                return $item;
            }
        }

        return null;
    }

    /** @return list<self> */
    public function children(string ...$keywords): array
    {
        return array_values(array_filter(
            $this->items,
            static fn (mixed $item): bool => $item instanceof self && \in_array($item->keyword, $keywords, true),
        ));
    }

    public function name(): string
    {
        $first = $this->items[0] ?? '';

        return \is_string($first) ? $first : '';
    }

    public function number(int $index): float
    {
        $value = $this->items[$index] ?? null;
        if (!\is_float($value)) {
            throw new UnreadableSystem(\sprintf(
                '%s at character %d: a number is missing in place %d', $this->keyword, $this->offset + 1, $index + 1,
            ));
        }

        return $value;
    }

    /** Code of ID["EPSG",n] (or AUTHORITY of the older text). */
    public function epsg(): ?int
    {
        foreach ($this->children('ID', 'AUTHORITY') as $id) {
            if ('EPSG' === strtoupper($id->name()) && isset($id->items[1]) && !$id->items[1] instanceof self && is_numeric($id->items[1])) {
                return (int) $id->items[1];
            }
        }

        return null;
    }

    private static function element(string $text, int &$at): self
    {
        if (1 !== preg_match('/\G\s*([A-Za-z_][A-Za-z0-9_]*)\s*([\[(])/', $text, $match, 0, $at)) {
            throw self::broken($text, $at, 'a keyword and an opening bracket are expected');
        }
        $start = $at;
        $at += \strlen($match[0]);
        $close = '[' === $match[2] ? ']' : ')';
        $items = [];
        while (true) {
            $at += strspn($text, " \t\r\n", $at);
            $c = $text[$at] ?? '';
            if ($c === $close) {
                ++$at;
                break;
            }
            if (',' === $c && [] !== $items) {
                ++$at;
                continue;
            }
            if ('"' === $c) {
                if (1 !== preg_match('/\G"((?:[^"]|"")*)"/', $text, $string, 0, $at)) {
                    throw self::broken($text, $at, 'a quotation mark is not closed');
                }
                $at += \strlen($string[0]);
                $items[] = str_replace('""', '"', $string[1]);
            } elseif (1 === preg_match('/\G[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?(?=\s*[,\])])/', $text, $number, 0, $at)) {
                $at += \strlen($number[0]);
                $items[] = (float) $number[0];
            } elseif (1 === preg_match('/\G[A-Za-z_][A-Za-z0-9_]*\s*[\[(]/', $text, $match2, 0, $at)) {
                $items[] = self::element($text, $at);
            } elseif (1 === preg_match('/\G[^,\[\]()"]+/', $text, $word, 0, $at)) {
                $at += \strlen($word[0]);
                $items[] = trim($word[0]);
            } else {
                throw self::broken(
                    $text,
                    $at,
                    '' === $c ? \sprintf('the text ends before %s is closed', $match[1]) : \sprintf('"%s" is not expected', $c),
                );
            }
        }

        return new self(strtoupper($match[1]), $items, $start);
    }

    private static function broken(string $text, int $at, string $why): UnreadableSystem
    {
        $line = 1 + substr_count(substr($text, 0, $at), "\n");

        return new UnreadableSystem(\sprintf('well-known text, line %d, character %d: %s', $line, $at + 1, $why));
    }
}
