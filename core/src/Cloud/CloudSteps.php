<?php

declare(strict_types=1);

namespace Mensura\Cloud;

use Mensura\Fault\UnusableInput;

/**
 * What is done to a cloud that comes in pieces: thinned, noise and ground found, classes chosen, in this order. Where not all of it
 * has to be known at once it goes through without being held.
 */
final class CloudSteps
{
    /** Points that are held at once where all have to be known: for noise and ground. */
    private const MOST = 10_000_000;
    private const AT_ONCE = 8_000;
    private const NOISE = 7;
    private const HIGH_NOISE = 18;
    private const GROUND = 2;
    private const UNCLASSIFIED = 1;

    private readonly ?Thin $thin;
    private ?PointBlock $held = null;

    /**
     * @param ?float                     $side    metres of the cubes that keep one point each
     * @param ?array<int, true>          $classes that are kept; all where it is null
     * @param float                      $metre   metres of a unit of the coordinates
     * @param \Closure(PointBlock): void $give    what is left, many at once
     */
    public function __construct(
        ?float $side, private readonly bool $noise, private readonly bool $ground, private readonly ?array $classes,
        private readonly float $metre, private readonly \Closure $give,
    ) {
        $this->thin = null === $side ? null : new Thin($side / $metre);
    }

    /** @throws UnusableInput for more points than can be held */
    public function take(PointBlock $block): void
    {
        if (null !== $this->thin) {
            $this->thin->take($block);
        } elseif ($this->noise || $this->ground) {
            ($this->held ??= new PointBlock())->add($block);
            self::limit($this->held);
        } else {
            $this->give($block);
        }
    }

    /**
     * @param ?\Closure(string, float): void $progress
     *
     * @throws UnusableInput for more points than can be held
     */
    public function finish(?\Closure $progress = null): void
    {
        $held = null !== $this->thin ? $this->thin->kept : $this->held;
        if (null === $held) {
            return;
        }
        if ($this->noise || $this->ground) {
            self::limit($held);
            $this->classify($held, $progress ?? static function (string $stage, float $fraction): void {});
        }
        for ($from = 0, $n = $held->count(); $from < $n; $from += self::AT_ONCE) {
            $this->give($held->only(range($from, min($n, $from + self::AT_ONCE) - 1)));
        }
    }

    private function give(PointBlock $points): void
    {
        $classes = $this->classes;
        ($this->give)(null === $classes ? $points
            : $points->only(array_keys(array_filter($points->classes, static fn (int $c): bool => isset($classes[$c])))));
    }

    /** @param \Closure(string, float): void $progress */
    private function classify(PointBlock $points, \Closure $progress): void
    {
        if (0 === $points->count()) {
            return;
        }
        $in = $points->scaled($this->metre);
        if ($this->noise) {
            $progress('noise', 0.0);
            $in->classify(Noise::of($in->x, $in->y, $in->z), self::NOISE);
        }
        if ($this->ground) {
            $progress('ground', 0.5);
            $noise = [];
            foreach ($in->classes as $i => $class) {
                if (self::NOISE === $class || self::HIGH_NOISE === $class) {
                    $noise[$i] = true;
                }
            }
            $ground = Ground::of($in->x, $in->y, $in->z, $noise);
            $in->classes = array_map(static fn (int $c): int => 0 === $c ? self::UNCLASSIFIED : $c, $in->classes);
            $in->classify($ground, self::GROUND);
        }
        $points->classes = $in->classes;
    }

    private static function limit(PointBlock $held): void
    {
        if ($held->count() > self::MOST) {
            $words = 'more than %d points: noise and ground need all of them at once; crop the cloud, or thin it';
            throw new UnusableInput('', \sprintf($words, self::MOST));
        }
    }
}
