<?php

declare(strict_types=1);

namespace App\Intake\Names;

use App\Intake\PlainName;

/** Marks that are known so far, found by the look of their name or by where they lie. Metres. */
final class Marks
{
    /** @var array<string, array{?float, ?float, ?float, string}> e, n, h, where, by name */
    private array $marks = [];

    /** @var array<string, list<string>> names by what they look like */
    private array $plain = [];

    /** @var array<string, list<string>> names by cell of the plan */
    private array $cells = [];

    public function __construct(private readonly float $near)
    {
    }

    public function add(string $name, ?float $e, ?float $n, ?float $h, string $where): void
    {
        if (isset($this->marks[$name])) {
            return;
        }
        $this->marks[$name] = [$e, $n, $h, $where];
        $this->plain[PlainName::of($name)][] = $name;
        if (null !== $e && null !== $n) {
            $this->cells[(int) floor($e / $this->near).' '.(int) floor($n / $this->near)][] = $name;
        }
    }

    public function has(string $name): bool
    {
        return isset($this->marks[$name]);
    }

    /** @param array{?float, ?float, ?float} $from */
    public function named(string $name, array $from): ?Mark
    {
        if (!isset($this->marks[$name])) {
            return null;
        }
        [$e, $n, $h, $where] = $this->marks[$name];
        $plan = null !== $e && null !== $n && null !== $from[0] && null !== $from[1] ? hypot($e - $from[0], $n - $from[1]) : null;

        return new Mark($name, $where, $plan, null !== $h && null !== $from[2] ? $h - $from[2] : null);
    }

    /**
     * Another name that may be meant: spelled alike, else nearest within reach.
     *
     * @param array{?float, ?float, ?float} $from
     */
    public function like(string $name, array $from): ?Mark
    {
        foreach ($this->plain[PlainName::of($name)] ?? [] as $alike) {
            if ($alike !== $name) {
                return $this->named($alike, $from);
            }
        }
        if (null === $from[0] || null === $from[1]) {
            return null;
        }
        $nearest = null;
        $column = (int) floor($from[0] / $this->near);
        $row = (int) floor($from[1] / $this->near);
        for ($i = $column - 1; $i <= $column + 1; ++$i) {
            for ($j = $row - 1; $j <= $row + 1; ++$j) {
                foreach ($this->cells["$i $j"] ?? [] as $other) {
                    $mark = $other === $name ? null : $this->named($other, $from);
                    if (null !== $mark && $mark->plan <= $this->near && (null === $nearest || $mark->plan < $nearest->plan)) {
                        $nearest = $mark;
                    }
                }
            }
        }

        return $nearest;
    }
}
