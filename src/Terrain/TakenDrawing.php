<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Design\DesignFiles;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\SurfaceLine;

/** What a surface takes of a drawing: faces of it as the surface itself, or its lines as breaklines, boundaries or voids. */
final readonly class TakenDrawing
{
    private const MOST = 200_000;

    /**
     * @param list<string> $layers empty for all
     * @param list<int>    $faces  of the drawing, by number; empty for all of the layers
     * @param string       $unit   of the drawing; empty for metres
     * @param string       $role   of the lines
     */
    public function __construct(
        public int $file, public array $layers = [], public array $faces = [], public string $unit = '',
        public string $role = SurfaceLine::BREAKLINE,
    ) {
    }

    /**
     * @param array<mixed> $d
     *
     * @throws UnusableInput naming the field
     */
    public static function fromArray(array $d, string $pointer): self
    {
        $layers = $d['layers'] ?? [];
        $faces = $d['faces'] ?? [];
        if (!\is_int($d['file'] ?? null)) {
            throw new UnusableInput("$pointer/file", 'is the number of a design file');
        }
        if (!\is_array($layers) || [] !== array_filter($layers, static fn (mixed $l): bool => !\is_string($l))) {
            throw new UnusableInput("$pointer/layers", 'are names of layers');
        }
        if (!\is_array($faces) || \count($faces) > self::MOST || [] !== array_filter($faces, static fn (mixed $f): bool => !\is_int($f))) {
            throw new UnusableInput("$pointer/faces", \sprintf('are numbers of up to %d faces', self::MOST));
        }
        $unit = $d['unit'] ?? '';
        if (!\in_array($unit, DesignFiles::UNITS, true)) {
            throw new UnusableInput("$pointer/unit", 'is m, ft, ftUS, mm or empty');
        }

        $role = $d['role'] ?? SurfaceLine::BREAKLINE;
        if (!\in_array($role, SurfaceLine::ROLES, true)) {
            throw new UnusableInput("$pointer/role", 'is breakline, boundary or void');
        }

        return new self($d['file'], array_values($layers), array_values($faces), $unit, $role);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $role = SurfaceLine::BREAKLINE === $this->role ? '' : $this->role;

        return array_filter([
            'file' => $this->file, 'layers' => $this->layers, 'faces' => $this->faces, 'unit' => $this->unit, 'role' => $role,
        ]);
    }

    public function metre(): float
    {
        return DesignFiles::METRES[$this->unit];
    }
}
