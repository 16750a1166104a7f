<?php

declare(strict_types=1);

namespace App\Intake\View;

/** What a waiting file is read as. */
final readonly class PreviewView
{
    /**
     * @param list<KindView> $kinds
     * @param list<ColumnView> $columns
     * @param list<FieldView> $fields
     * @param array<string, int> $counts
     * @param list<FindingView> $findings
     * @param list<UnitAskView> $questions units that stand nowhere
     * @param ?list<float> $extent
     * @param list<PlacedPoint> $points some of them where there are thousands; pointCount says how many there are
     * @param list<list<int>> $rays
     */
    public function __construct(
        public int $id,
        public string $name,
        public int $size,
        public string $sha256,
        public string $kind,
        public array $kinds,
        public array $columns,
        public array $fields,
        public array $counts,
        public int $leftOut,
        public array $findings,
        public int $findingCount,
        public array $questions,
        public ?array $extent,
        public array $points,
        public int $pointCount,
        public array $rays,
        public ?string $unreadable,
        public bool $acceptable,
        public ?MeaningView $meaning,
        public ?MemoryView $memory = null,
        public string $twin = '',
    ) {
    }

    /** @param list<KindView> $kinds */
    public static function unreadable(int $id, string $name, int $size, string $sha256, array $kinds, string $why): self
    {
        return new self($id, $name, $size, $sha256, '', $kinds, [], [], [], 0, [], 0, [], null, [], 0, [], $why, false, null);
    }
}
