<?php

declare(strict_types=1);

namespace App\Terrain;

use Mensura\Fault\UnusableInput;
use Mensura\Surface\SurfaceLine;

/** A line that shapes a surface: through points by their names, or by vertices drawn on the sketch (metres). */
final readonly class DefinedLine
{
    private const LONGEST_NAME = 80;

    /**
     * @param list<string>       $points
     * @param list<list<float>> $vertices
     */
    public function __construct(public string $role, public string $name, public array $points, public array $vertices)
    {
    }

    /** @throws UnusableInput naming the field */
    public static function fromRequest(mixed $line, string $pointer): self
    {
        $line = \is_array($line) ? $line : throw new UnusableInput($pointer, 'is not a line');
        $role = $line['role'] ?? null;
        if (!\in_array($role, SurfaceLine::ROLES, true)) {
            throw new UnusableInput("$pointer/role", 'is breakline, boundary or void');
        }
        $points = $line['points'] ?? [];
        if (!\is_array($points) || [] !== array_filter($points, static fn (mixed $p): bool => !\is_string($p))) {
            throw new UnusableInput("$pointer/points", 'are names of points');
        }
        $points = array_values(array_filter($points, static fn (string $p): bool => '' !== $p));
        $vertices = [];
        foreach (\is_array($line['vertices'] ?? []) ? $line['vertices'] ?? [] : [null] as $k => $vertex) {
            $isPlace = \is_array($vertex) && self::isNumber($vertex[0] ?? null) && self::isNumber($vertex[1] ?? null);
            $vertices[] = $isPlace ? [(float) $vertex[0], (float) $vertex[1]] :
                throw new UnusableInput("$pointer/vertices/$k", 'is [easting, northing]');
        }
        if ([] === $points && [] === $vertices) {
            throw new UnusableInput($pointer, 'has neither points nor vertices');
        }
        $name = $line['name'] ?? $role;

        return new self($role, mb_substr(\is_string($name) ? $name : $role, 0, self::LONGEST_NAME), $points, $vertices);
    }

    /** @param array<string, mixed> $line */
    public static function fromArray(array $line): self
    {
        return new self($line['role'] ?? SurfaceLine::BREAKLINE, $line['name'] ?? '', $line['points'] ?? [], $line['vertices'] ?? []);
    }

    public function isClosed(): bool
    {
        return SurfaceLine::BREAKLINE !== $this->role;
    }

    private static function isNumber(mixed $value): bool
    {
        return \is_int($value) || \is_float($value) || \is_string($value) && is_numeric($value);
    }
}
