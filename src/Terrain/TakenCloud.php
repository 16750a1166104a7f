<?php

declare(strict_types=1);

namespace App\Terrain;

use Mensura\Fault\UnusableInput;

/** What a surface takes of a point cloud. */
final readonly class TakenCloud
{
    /**
     * @param list<int> $classes of the LAS specification; empty for all points
     * @param ?float    $spacing metres: one point to a square of that side; null for all
     */
    public function __construct(public int $file, public array $classes = [], public ?float $spacing = null)
    {
    }

    /**
     * @param array<mixed> $d
     *
     * @throws UnusableInput naming the field
     */
    public static function fromArray(array $d): self
    {
        $classes = $d['classes'] ?? [];
        $spacing = $d['spacing'] ?? null;
        if (!\is_int($d['file'] ?? null)) {
            throw new UnusableInput('/cloud/file', 'is the number of a point cloud');
        }
        $isClass = static fn (mixed $c): bool => \is_int($c) && $c >= 0 && $c <= 255;
        if (!\is_array($classes) || \count($classes) > 256 || \count(array_filter($classes, $isClass)) < \count($classes)) {
            throw new UnusableInput('/cloud/classes', 'are numbers from 0 to 255');
        }
        if (null !== $spacing && (!is_numeric($spacing) || !((float) $spacing >= 0.001) || (float) $spacing > 1000.0)) {
            throw new UnusableInput('/cloud/spacing', 'is from 0.001 to 1000 m');
        }

        return new self($d['file'], array_values($classes), null === $spacing ? null : (float) $spacing);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return array_filter(['file' => $this->file, 'classes' => $this->classes, 'spacing' => $this->spacing]);
    }
}
