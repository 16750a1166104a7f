<?php

declare(strict_types=1);

namespace App\HandOver\Kept;

use Mensura\Fault\UnusableInput;

/** Values of a definition as they come from a page or a file, each refused by its place where it is none. */
final readonly class Given
{
    private const MOST = 500;

    /** @param array<mixed> $values */
    public function __construct(private array $values, private string $at = '')
    {
    }

    /** @return list<self> */
    public function items(string $key): array
    {
        $items = [];
        foreach ($this->list($key, static fn (mixed $i): bool => \is_array($i), 'entries') as $i => $item) {
            $items[] = new self((array) $item, "$this->at/$key/$i");
        }

        return $items;
    }

    /** @return list<string> */
    public function texts(string $key): array
    {
        return array_values(array_unique($this->list($key, static fn (mixed $t): bool => \is_string($t), 'texts')));
    }

    /** @return list<int> */
    public function numbers(string $key): array
    {
        return array_values(array_unique($this->list($key, static fn (mixed $n): bool => \is_int($n), 'numbers')));
    }

    public function text(string $key, int $most = 400, string $else = ''): string
    {
        $text = $this->values[$key] ?? $else;
        if (!\is_string($text) || mb_strlen($text) > $most) {
            throw new UnusableInput("$this->at/$key", "is a text of at most $most letters");
        }

        return $text;
    }

    /** @param list<string> $of */
    public function oneOf(string $key, array $of, string $else): string
    {
        $text = $this->values[$key] ?? $else;

        return \is_string($text) && \in_array($text, $of, true) ? $text
            : throw new UnusableInput("$this->at/$key", 'is one of '.implode(', ', $of));
    }

    public function whole(string $key, int $least = 0, int $most = \PHP_INT_MAX, int $else = 0): int
    {
        $number = $this->values[$key] ?? $else;

        if (!\is_int($number) || $number < $least || $number > $most) {
            throw new UnusableInput("$this->at/$key", "is a whole number from $least".(\PHP_INT_MAX === $most ? '' : " to $most"));
        }

        return $number;
    }

    public function number(string $key, float $least, float $most, float $else = 0.0): float
    {
        $number = $this->values[$key] ?? $else;
        if (!\is_int($number) && !\is_float($number) || $number < $least || $number > $most) {
            throw new UnusableInput("$this->at/$key", \sprintf('is a number from %s to %s', $least, $most));
        }

        return (float) $number;
    }

    public function numberOrNull(string $key, float $least, float $most): ?float
    {
        return null === ($this->values[$key] ?? null) ? null : $this->number($key, $least, $most);
    }

    public function is(string $key, bool $else = false): bool
    {
        $is = $this->values[$key] ?? $else;

        return \is_bool($is) ? $is : throw new UnusableInput("$this->at/$key", 'is true or false');
    }

    public function has(string $key): bool
    {
        return isset($this->values[$key]);
    }

    public function refuse(string $key, string $why): never
    {
        throw new UnusableInput("$this->at/$key", $why);
    }

    /**
     * @param \Closure(mixed): bool $is
     *
     * @return list<mixed>
     */
    private function list(string $key, \Closure $is, string $what): array
    {
        $list = $this->values[$key] ?? [];
        if (!\is_array($list) || \count($list) > self::MOST || \count(array_filter($list, $is)) < \count($list)) {
            throw new UnusableInput("$this->at/$key", \sprintf('is a list of %d %s at most', self::MOST, $what));
        }

        return array_values($list);
    }
}
