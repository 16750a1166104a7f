<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Fault\UnusableInput;

/** What a kind of file cannot hold, gathered while it is written. */
final class Lost
{
    /** @var array<string, int> */
    private array $counted = [];

    /** @var list<string> */
    private array $said = [];

    public function count(string $what, int $by = 1): void
    {
        $this->counted[$what] = ($this->counted[$what] ?? 0) + $by;
    }

    public function say(string $words): void
    {
        $this->said[] = $words;
    }

    /**
     * Only features of some kinds; the others are lost, and said.
     *
     * @param list<string> $kinds
     *
     * @return list<Feature>
     *
     * @throws UnusableInput where none is left
     */
    public function only(FeatureSet $set, array $kinds, string $format): array
    {
        $kept = [];
        foreach ($set->features as $f) {
            if (\in_array($f->kind, $kinds, true)) {
                $kept[] = $f;
            } else {
                $this->count($f->kind.'s');
            }
        }

        return [] !== $kept || [] === $set->features ? $kept : throw new UnusableInput('', \sprintf(
            '%s holds %ss, and there is none: there are %s', $format, implode('s and ', $kinds), implode(', ', $this->all()),
        ));
    }

    /**
     * Properties that the kind of file has no place for.
     *
     * @param list<string> $held
     */
    public function properties(FeatureSet $set, array $held): void
    {
        $gone = array_values(array_diff($set->properties(), $held));
        if ([] !== $gone) {
            $this->say('the properties '.implode(', ', $gone));
        }
    }

    /** @return list<string> */
    public function all(): array
    {
        $words = [];
        foreach ($this->counted as $what => $n) {
            $words[] = $n.' '.(1 === $n ? rtrim($what, 's') : $what);
        }

        return [...$words, ...$this->said];
    }
}
