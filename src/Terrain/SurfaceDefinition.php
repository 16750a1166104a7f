<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Reference\ProjectReference;
use App\Terrain\Request\SurfaceRequest;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\SurfaceBuilder;
use Mensura\Surface\SurfaceLine;

/** Which points and lines make a surface; kept by name so that the surface follows the points. */
final readonly class SurfaceDefinition
{
    private const ROLES = ['control', 'adjusted', 'surveyed'];

    /**
     * @param list<string>                                                                                $roles
     * @param list<string>                                                                                $codes empty: all
     * @param list<string>                                                                                $exclude point names
     * @param list<array{role: string, name: string, points: list<string>, vertices: list<list<float>>}> $lines
     */
    public function __construct(public array $roles, public array $codes, public array $exclude, public array $lines, public ?float $maxEdge, public float $interval)
    {
    }

    /** @throws UnusableInput */
    public static function fromRequest(SurfaceRequest $request): self
    {
        if ([] !== $unknown = array_diff($request->roles, self::ROLES)) {
            throw new UnusableInput('/roles', \sprintf('"%s" is not a role of points', reset($unknown)));
        }
        $lines = [];
        foreach ($request->lines as $i => $line) {
            $role = $line['role'] ?? null;
            if (!\in_array($role, [SurfaceLine::BREAKLINE, SurfaceLine::BOUNDARY, SurfaceLine::VOID], true)) {
                throw new UnusableInput("/lines/$i/role", 'is breakline, boundary or void');
            }
            $points = array_values(array_filter((array) ($line['points'] ?? []), static fn (mixed $p): bool => \is_string($p) && '' !== $p));
            $vertices = [];
            foreach ((array) ($line['vertices'] ?? []) as $k => $vertex) {
                if (!\is_array($vertex) || !is_numeric($vertex[0] ?? null) || !is_numeric($vertex[1] ?? null)) {
                    throw new UnusableInput("/lines/$i/vertices/$k", 'is [easting, northing]');
                }
                $vertices[] = [(float) $vertex[0], (float) $vertex[1]];
            }
            if ([] === $points && [] === $vertices) {
                throw new UnusableInput("/lines/$i", 'has neither points nor vertices');
            }
            $lines[] = ['role' => $role, 'name' => mb_substr((string) ($line['name'] ?? $role), 0, 80), 'points' => $points, 'vertices' => $vertices];
        }

        return new self(array_values($request->roles), array_values($request->codes), array_values($request->exclude), $lines, $request->maxEdge, $request->interval);
    }

    public static function fromJson(string $json): self
    {
        return new self(...json_decode($json, true, 16, \JSON_THROW_ON_ERROR));
    }

    public function toJson(): string
    {
        return json_encode((array) $this, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);
    }

    /** @throws UnusableInput */
    public function builder(Connection $connection, int $project): SurfaceBuilder
    {
        $x = $y = $z = $names = [];
        $all = [];
        foreach ($connection->fetchAllAssociative('SELECT name, role, code, e, n, h FROM point WHERE project_id = ? AND e IS NOT NULL AND n IS NOT NULL AND h IS NOT NULL AND '.ProjectReference::ON_GRID.' ORDER BY id', [$project]) as $p) {
            $all[(string) $p['name']] = $p;
            if (\in_array($p['role'], $this->roles, true) && ([] === $this->codes || \in_array($p['code'], $this->codes, true)) && !\in_array((string) $p['name'], $this->exclude, true)) {
                $x[] = (float) $p['e'];
                $y[] = (float) $p['n'];
                $z[] = (float) $p['h'];
                $names[] = (string) $p['name'];
            }
        }
        if (\count($x) < 3) {
            throw new UnusableInput('/roles', \sprintf('the selection holds %d points with heights; a surface needs at least three', \count($x)));
        }
        $lines = [];
        foreach ($this->lines as $line) {
            $vertices = [];
            foreach ($line['points'] as $name) {
                $p = $all[$name] ?? throw new UnusableInput('/lines', \sprintf('line "%s" runs through %s, which is not a point with a height', $line['name'], $name));
                $vertices[] = [(float) $p['e'], (float) $p['n'], SurfaceLine::BREAKLINE === $line['role'] ? (float) $p['h'] : null];
            }
            foreach ($line['vertices'] as $vertex) {
                $vertices[] = [(float) $vertex[0], (float) $vertex[1], null];
            }
            $lines[] = new SurfaceLine($line['role'], $line['name'], $vertices);
        }

        return new SurfaceBuilder($x, $y, $z, $names, $lines);
    }
}
