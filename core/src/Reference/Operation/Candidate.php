<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

use Mensura\Reference\Crs\Area;

/** One way from a datum to another: what it is, how good, where, what it needs, and its steps. */
final class Candidate
{
    private ?int $weight = null;

    /**
     * @param ?float                  $accuracy     metres; null when nobody says
     * @param ?Area                   $area         where it may be used; null for everywhere
     * @param list<StepDescription>   $descriptions
     * @param list<string>            $missing      grids that are not there, by their registry names
     * @param \Closure(): list<Step>  $steps        made when first used
     * @param list<string>            $unsupported  methods not computed here
     * @param ?float                  $epoch        reference epoch when the parameters move with time
     * @param list<string>            $grids        paths of the grid files it reads
     * @param bool                    $named        asked for by name: no other is weighed against it
     */
    public function __construct(
        public readonly string $name,
        public readonly ?float $accuracy,
        public readonly ?Area $area,
        public readonly array $descriptions,
        public readonly array $missing,
        private readonly \Closure $steps,
        public readonly array $unsupported = [],
        public readonly bool $ballpark = false,
        public readonly ?float $epoch = null,
        public readonly array $grids = [],
        public readonly bool $named = false,
    ) {
    }

    public static function identity(string $name = 'No change of datum', ?float $accuracy = 0.0): self
    {
        return new self($name, $accuracy, null, [], [], static fn (): array => []);
    }

    public function isUsable(): bool
    {
        return [] === $this->missing && [] === $this->unsupported;
    }

    /** Steps that do something. */
    private function weight(): int
    {
        return $this->weight ??= $this->isUsable() ? \count($this->steps()) : \count($this->descriptions);
    }

    /** Whether its area is one at sea alone. */
    public function isOffshore(): bool
    {
        return null !== $this->area && str_contains($this->area->name, '- offshore') && !str_contains($this->area->name, 'onshore');
    }

    /** Whether every row goes through it unchanged. */
    public function isIdentity(): bool
    {
        return [] === $this->descriptions;
    }

    /** @return list<Step> */
    public function steps(): array
    {
        return ($this->steps)();
    }

    /** "0.2 m", or "accuracy not stated". */
    public function accuracyText(): string
    {
        return null === $this->accuracy ? 'accuracy not stated' : \sprintf('%.4g m', $this->accuracy);
    }

    /** The same way, held to be usable everywhere. */
    public function everywhere(): self
    {
        return $this->within(null, $this->named);
    }

    /** The same way as the one that was asked for, within an area or everywhere. */
    public function asNamed(?Area $area): self
    {
        return $this->within($area, true);
    }

    private function within(?Area $area, bool $named): self
    {
        return new self(
            $this->name, $this->accuracy, $area, $this->descriptions, $this->missing, $this->steps,
            $this->unsupported, $this->ballpark, $this->epoch, $this->grids, $named,
        );
    }

    /** One after the other; the accuracies add up and the areas are cut. Null when the areas do not meet. */
    public function then(self $next): ?self
    {
        if (null === $this->area || null === $next->area) {
            $area = $this->area ?? $next->area;
        } else {
            $area = $this->area->intersection($next->area);
            if (null === $area) {
                return null;
            }
        }
        $first = $this->steps;
        $second = $next->steps;

        return new self(
            $this->isIdentity() && 'No change of datum' === $this->name
                ? $next->name
                : ($next->isIdentity() && 'No change of datum' === $next->name ? $this->name : $this->name.' + '.$next->name),
            null === $this->accuracy || null === $next->accuracy ? null : $this->accuracy + $next->accuracy,
            $area,
            [...$this->descriptions, ...$next->descriptions],
            [...$this->missing, ...$next->missing],
            static fn (): array => [...$first(), ...$second()],
            [...$this->unsupported, ...$next->unsupported],
            $this->ballpark || $next->ballpark,
            $this->epoch ?? $next->epoch,
            [...$this->grids, ...$next->grids],
            $this->named || $next->named,
        );
    }

    /**
     * Best first: ways for land before those for the sea alone, then better stated accuracy, larger area, nothing to
     * do before something, shorter and later names. Among equals the reader prefers one made for a place within
     * the other's area (ChoiceStep).
     *
     * @param list<self> $candidates
     *
     * @return list<self>
     */
    public static function sorted(array $candidates): array
    {
        usort($candidates, static fn (self $a, self $b): int => ($a->ballpark <=> $b->ballpark)
            ?: ($a->isOffshore() <=> $b->isOffshore())
            ?: (($a->accuracy ?? \INF) <=> ($b->accuracy ?? \INF))
            ?: (($b->area?->size() ?? 1e9) <=> ($a->area?->size() ?? 1e9))
            ?: ($a->weight() <=> $b->weight())
            ?: (\strlen($a->name) <=> \strlen($b->name))
            ?: strcmp($b->name, $a->name));

        return $candidates;
    }
}
