<?php

declare(strict_types=1);

namespace Mensura\Cloud;

/** Points of a cloud, some thousands at once or all of them. Flat; coordinates as the file holds them. */
final class PointBlock
{
    /**
     * @param list<float>   $x
     * @param list<float>   $y
     * @param list<float>   $z
     * @param list<int>     $classes of the LAS specification, 0 where nobody said
     * @param list<string>  $records as a LAS file holds them, with what else is said of each; empty where there are none
     * @param list<string>  $looks   intensity (16 bits, low byte first) and red, green, blue (a byte each); empty where nobody asked
     */
    public function __construct(
        public array $x = [], public array $y = [], public array $z = [], public array $classes = [], public array $records = [],
        public array $looks = [],
    ) {
    }

    public function count(): int
    {
        return \count($this->x);
    }

    /** @param list<int> $kept numbers of points */
    public function only(array $kept): self
    {
        $of = new self();
        $hasRecords = [] !== $this->records;
        $hasLooks = [] !== $this->looks;
        foreach ($kept as $i) {
            $of->x[] = $this->x[$i];
            $of->y[] = $this->y[$i];
            $of->z[] = $this->z[$i];
            $of->classes[] = $this->classes[$i];
            if ($hasRecords) {
                $of->records[] = $this->records[$i];
            }
            if ($hasLooks) {
                $of->looks[] = $this->looks[$i];
            }
        }

        return $of;
    }

    /** The same in another unit, without records. */
    public function scaled(float $by): self
    {
        $times = static fn (float $v): float => $v * $by;

        return 1.0 === $by ? new self($this->x, $this->y, $this->z, $this->classes)
            : new self(array_map($times, $this->x), array_map($times, $this->y), array_map($times, $this->z), $this->classes);
    }

    /** @param array<int, true> $which numbers of points */
    public function classify(array $which, int $class): void
    {
        $classes = $this->classes;
        foreach ($which as $i => $_) {
            $classes[$i] = $class;
        }
        $this->classes = array_values($classes);
    }

    public function add(self $more): void
    {
        array_push($this->x, ...$more->x);
        array_push($this->y, ...$more->y);
        array_push($this->z, ...$more->z);
        array_push($this->classes, ...$more->classes);
        array_push($this->records, ...$more->records);
        array_push($this->looks, ...$more->looks);
    }
}
