<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Grid\Ntv2Grid;

/**
 * The shift grids that were asked for by name while a way is planned, and how each comes into it: by an operation between two
 * datums that names the file, then by one through a third datum, and where there is none as it stands between the two.
 */
final class NamedGrids
{
    private const DIRECT = 0;
    private const INDIRECT = 1;
    private const AS_IT_STANDS = 2;

    /** Axes in a grid's heading are written to the millimetre, metres. */
    private const SAME_AXIS = 0.01;

    /** @var array<string, int> how each shift grid is looked for, by path */
    private array $sought;

    /** @var array<string, true> paths in use */
    private array $used = [];

    /**
     * @param HorizontalSystem $start where the whole way begins
     * @param HorizontalSystem $end   where it ends
     */
    public function __construct(
        private readonly GridFiles $files,
        private readonly HorizontalSystem $start,
        private readonly HorizontalSystem $end,
    ) {
        $this->sought = array_fill_keys($files->namedShifts(), self::DIRECT);
    }

    public function hasShifts(): bool
    {
        return [] !== $this->sought;
    }

    /** A way is planned from the beginning. */
    public function begin(): void
    {
        $this->used = [];
    }

    /** Looks in the next manner for the shift grids that the last plan did not use; false when there is none or no manner left. */
    public function seekFurther(): bool
    {
        $further = false;
        foreach ($this->sought as $path => $manner) {
            if (!isset($this->used[$path]) && $manner < self::AS_IT_STANDS) {
                ++$this->sought[$path];
                $further = true;
            }
        }

        return $further;
    }

    /** @return list<string> names of the files that are in no part of the way */
    public function unused(): array
    {
        return array_map(basename(...), array_values(array_diff(array_keys($this->sought), array_keys($this->used))));
    }

    /**
     * Ways between two datums that use the named grids. One grid alone serves everywhere, so that a place outside it is
     * an error; of several each serves where it reaches.
     *
     * @param bool                                        $alone    whether nothing else may serve where the grids end
     * @param \Closure(): list<Candidate>                 $direct   ways between the two
     * @param \Closure(): list<Candidate>                 $indirect ways through a third datum
     * @param \Closure(HorizontalSystem): list<Candidate> $onward   ways from another system to the second
     *
     * @return list<Candidate>
     */
    public function candidates(
        bool $alone,
        HorizontalSystem $from,
        HorizontalSystem $to,
        \Closure $direct,
        \Closure $indirect,
        \Closure $onward,
    ): array {
        $found = [];
        foreach ($this->sought as $path => $manner) {
            $naming = static fn (array $list): array => array_values(array_filter(
                $list,
                static fn (Candidate $c): bool => $c->isUsable() && \in_array($path, $c->grids, true),
            ));
            $mine = $naming($direct());
            if ([] === $mine && $manner >= self::INDIRECT) {
                $mine = $naming($indirect());
            }
            if ([] === $mine
                && self::AS_IT_STANDS === $manner
                && ($from->datum === $this->start->datum || $from->datum->sameAs($this->start->datum))
            ) {
                $there = $to->datum === $this->end->datum || $to->datum->sameAs($this->end->datum);
                $mine = array_values(array_filter(array_map(
                    $this->asItStands($path)->then(...), $there ? [Candidate::identity()] : $onward($this->end),
                )));
            }
            foreach ($mine as $candidate) {
                $this->used[$path] = true;
                $found[] = $candidate->asNamed($alone && 1 === \count($this->sought) ? null : $this->files->shifts($path)->area());
            }
        }

        return $found;
    }

    /** The grid between the first datum and the last, forward unless the axes in its heading say that it leads back. */
    private function asItStands(string $path): Candidate
    {
        $grid = $this->files->shifts($path);
        $back = !self::leads($grid, $this->start, $this->end) && self::leads($grid, $this->end, $this->start);
        $name = \sprintf('%sGrid %s as it stands', $back ? 'Inverse of ' : '', basename($path));

        return new Candidate(
            $name, null, null,
            [new StepDescription(($back ? 'Inverse of ' : '').'NTv2', basename($path), ['grid' => basename($path)])],
            [], static fn (): array => [new GridStep([$grid], $back)], grids: [$path],
        );
    }

    private static function leads(Ntv2Grid $grid, HorizontalSystem $from, HorizontalSystem $to): bool
    {
        $is = static fn (float $a, float $b, HorizontalSystem $system): bool => abs($a - $system->ellipsoid()->a) < self::SAME_AXIS
            && abs($b - $system->ellipsoid()->a * (1.0 - $system->ellipsoid()->f)) < self::SAME_AXIS;

        return $is($grid->fromA, $grid->fromB, $from) && $is($grid->toA, $grid->toB, $to);
    }
}
