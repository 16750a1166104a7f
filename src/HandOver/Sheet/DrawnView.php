<?php

declare(strict_types=1);

namespace App\HandOver\Sheet;

/**
 * What a view shows, as it is drawn: layers of lines and words. Ground in metres; widths in millimetres of paper. Can be kept as it is.
 *
 * @phpstan-type Layer array{name: string, colour: string, width: float, prints: bool, lines: list<list<float>>}
 */
final readonly class DrawnView
{
    /**
     * @param list<Layer>                                                                   $layers lines as e, n, e, n ...
     * @param list<array{name: string, e: float, n: float, h: ?float, role: string}>        $points
     * @param list<string>                                                                  $hidden layers that do not print
     */
    public function __construct(
        public array $layers, public array $points, public bool $names, public bool $heights, public float $text, public array $hidden,
    ) {
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return get_object_vars($this);
    }

    /** @param array<mixed> $kept */
    public static function fromArray(array $kept): self
    {
        return new self($kept['layers'], $kept['points'], $kept['names'], $kept['heights'], (float) $kept['text'], $kept['hidden']);
    }

    /** @return ?array{float, float, float, float} west, south, east, north; null where nothing is shown */
    public function box(): ?array
    {
        [$w, $s, $e, $n] = [\INF, \INF, -\INF, -\INF];
        foreach ($this->points as $p) {
            [$w, $s, $e, $n] = [min($w, $p['e']), min($s, $p['n']), max($e, $p['e']), max($n, $p['n'])];
        }
        foreach ($this->layers as $layer) {
            foreach ($layer['lines'] as $line) {
                for ($i = 0, $end = \count($line); $i < $end; $i += 2) {
                    [$w, $s, $e, $n] = [min($w, $line[$i]), min($s, $line[$i + 1]), max($e, $line[$i]), max($n, $line[$i + 1])];
                }
            }
        }

        return $w > $e ? null : [$w, $s, $e, $n];
    }

    public function prints(string $layer): bool
    {
        return !\in_array($layer, $this->hidden, true);
    }
}
