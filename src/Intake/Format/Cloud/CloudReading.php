<?php

declare(strict_types=1);

namespace App\Intake\Format\Cloud;

use App\Intake\Format\KnownByExtent;
use App\Intake\Format\Reading;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;

/** A point cloud as it was counted; its points stay in the file. */
final readonly class CloudReading implements Reading
{
    use KnownByExtent;

    private int $points;

    /** @var list<Finding> */
    private array $findings;

    /** @var ?list<?float> west, south, lowest, east, north, highest */
    private ?array $extent;

    /** @param array<string, mixed> $look as mensura-look/1 */
    public function __construct(array $look)
    {
        $this->points = (int) $look['points'];
        $this->extent = $look['extent'];
        $words = array_values($look['warnings']);
        if (null !== $look['unit'] && !\in_array($look['unit'], ['m', 'metre', 'meter'], true)) {
            $words[] = \sprintf('its unit is %s; its coordinates are taken as metres', $look['unit']);
        }
        $this->findings = array_map(static fn (string $w): Finding => new Finding(Finding::WARNING, null, $w), $words);
    }

    public function kind(): FileKind
    {
        return FileKind::Cloud;
    }

    public function counts(): array
    {
        return ['points' => $this->points];
    }

    public function size(): int
    {
        return $this->points;
    }

    public function findings(): array
    {
        return $this->findings;
    }

    public function missing(): ?string
    {
        return null;
    }

    public function kept(): array
    {
        return ['points' => $this->points, 'extent' => $this->extent];
    }
}
