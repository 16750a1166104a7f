<?php

declare(strict_types=1);

namespace Mensura\Flight;

/** How many images show the ground, counted in squares; and how much of an image the next one shows too. Metres. */
final readonly class Coverage
{
    private const ACROSS = 60;

    /**
     * @param list<float> $e       middles of squares that an image shows
     * @param list<float> $n
     * @param list<int>   $count   images that show each
     * @param float       $size    side of a square
     * @param ?float      $forward median share of an image that the next shows too
     */
    private function __construct(public array $e, public array $n, public array $count, public float $size, public ?float $forward)
    {
    }

    /** @param list<list<array{float, float}>> $footprints four corners each, in the order they were taken; empty where unknown */
    public static function of(array $footprints): self
    {
        $known = array_values(array_filter($footprints));
        $all = array_merge([], ...$known);
        if ([] === $all) {
            return new self([], [], [], 0.0, null);
        }
        [$x, $y] = [array_column($all, 0), array_column($all, 1)];
        [$west, $south, $east, $north] = [min($x), min($y), max($x), max($y)];
        $size = max(1e-3, max($east - $west, $north - $south) / self::ACROSS);
        $e = $n = $count = [];
        $both = $own = array_fill(0, \count($known), 0);
        for ($py = $south + 0.5 * $size; $py < $north; $py += $size) {
            for ($px = $west + 0.5 * $size; $px < $east; $px += $size) {
                $shown = 0;
                $wasShown = false;
                foreach ($known as $i => $corners) {
                    $isShown = self::holds($corners, $px, $py);
                    $shown += $isShown ? 1 : 0;
                    $own[$i] += $isShown ? 1 : 0;
                    $both[$i] += $isShown && $wasShown ? 1 : 0;
                    $wasShown = $isShown;
                }
                if ($shown > 0) {
                    [$e[], $n[], $count[]] = [$px, $py, $shown];
                }
            }
        }
        $shares = [];
        foreach ($own as $i => $squares) {
            if ($i > 0 && $squares > 0) {
                $shares[] = $both[$i] / $squares;
            }
        }
        sort($shares);

        return new self($e, $n, $count, $size, $shares[intdiv(\count($shares), 2)] ?? null);
    }

    /** Square metres that so many images show at least. */
    public function area(int $images): float
    {
        return \count(array_filter($this->count, static fn (int $c): bool => $c >= $images)) * $this->size * $this->size;
    }

    /** @param list<array{float, float}> $corners convex or not */
    private static function holds(array $corners, float $px, float $py): bool
    {
        $inside = false;
        $j = \count($corners) - 1;
        foreach ($corners as $i => [$x, $y]) {
            [$u, $v] = $corners[$j];
            if (($y > $py) !== ($v > $py) && $px < $x + ($py - $y) / ($v - $y) * ($u - $x)) {
                $inside = !$inside;
            }
            $j = $i;
        }

        return $inside;
    }
}
