<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Survey\Point;
use App\Survey\PointRow;
use App\Terrain\Request\SurfaceRequest;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\SurfaceBuilder;
use Mensura\Surface\SurfaceLine;

/** Which points and lines make a surface; kept by name so that the surface follows the points. */
final readonly class SurfaceDefinition
{
    private const ROLES = [Point::CONTROL, Point::ADJUSTED, Point::SURVEYED];
    private const LEAST_POINTS = 3;

    /**
     * @param list<string>      $roles
     * @param list<string>      $codes   empty: all
     * @param list<string>      $exclude point names
     * @param list<DefinedLine> $lines
     * @param ?float            $maxEdge metres
     * @param float             $interval of the contours, metres
     */
    public function __construct(
        public array $roles,
        public array $codes,
        public array $exclude,
        public array $lines,
        public ?float $maxEdge,
        public float $interval,
    ) {
    }

    /** @throws UnusableInput */
    public static function fromRequest(SurfaceRequest $request): self
    {
        foreach (['roles' => $request->roles, 'codes' => $request->codes, 'exclude' => $request->exclude] as $field => $texts) {
            foreach (array_values($texts) as $i => $text) {
                if (!\is_string($text)) {
                    throw new UnusableInput("/$field/$i", 'is a text');
                }
            }
        }
        if ([] !== $unknown = array_diff($request->roles, self::ROLES)) {
            throw new UnusableInput('/roles', \sprintf('"%s" is not a role of points', reset($unknown)));
        }
        $lines = [];
        foreach (array_values($request->lines) as $i => $line) {
            $lines[] = DefinedLine::fromRequest($line, "/lines/$i");
        }
        $lists = [array_values($request->roles), array_values($request->codes), array_values($request->exclude)];

        return new self(...[...$lists, $lines, $request->maxEdge, $request->interval]);
    }

    /** @param array<string, mixed> $d as {@see toArray()} */
    public static function fromArray(array $d): self
    {
        $lines = array_values(array_map(DefinedLine::fromArray(...), $d['lines'] ?? []));

        return new self(
            $d['roles'] ?? [], $d['codes'] ?? [], $d['exclude'] ?? [], $lines, $d['maxEdge'] ?? null,
            (float) ($d['interval'] ?? 1.0),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['lines' => array_map(static fn (DefinedLine $l): array => (array) $l, $this->lines)] + (array) $this;
    }

    /**
     * The same definition with other lines.
     *
     * @param \Closure(DefinedLine): DefinedLine $change
     */
    public function withLines(\Closure $change): self
    {
        return new self($this->roles, $this->codes, $this->exclude, array_map($change, $this->lines), $this->maxEdge, $this->interval);
    }

    /** @param list<string> $exclude */
    public function without(array $exclude): self
    {
        return new self($this->roles, $this->codes, $exclude, $this->lines, $this->maxEdge, $this->interval);
    }

    /**
     * @param iterable<PointRow> $points of the project, placed
     *
     * @throws UnusableInput
     */
    public function builder(iterable $points): SurfaceBuilder
    {
        $x = $y = $z = $names = [];
        $roles = array_flip($this->roles);
        $codes = array_flip($this->codes);
        $excluded = array_flip($this->exclude);
        $wanted = [];
        foreach ($this->lines as $line) {
            $wanted += array_flip($line->points);
        }
        $through = [];
        foreach ($points as $p) {
            if (null === $p->h) {
                continue;
            }
            if (isset($wanted[$p->name])) {
                $through[$p->name] = $p;
            }
            if (isset($roles[$p->role]) && ([] === $codes || isset($codes[$p->code])) && !isset($excluded[$p->name])) {
                $x[] = (float) $p->e;
                $y[] = (float) $p->n;
                $z[] = $p->h;
                $names[] = $p->name;
            }
        }
        if (\count($x) < self::LEAST_POINTS) {
            $reason = \sprintf('the selection holds %d points with heights; a surface needs at least three', \count($x));
            throw new UnusableInput('/roles', $reason);
        }

        return new SurfaceBuilder(
            $x, $y, $z, $names,
            array_map(static fn (DefinedLine $l): SurfaceLine => self::line($l, $through), $this->lines),
        );
    }

    /** @param array<string, PointRow> $points with heights, by name */
    private static function line(DefinedLine $line, array $points): SurfaceLine
    {
        $vertices = [];
        foreach ($line->points as $name) {
            $p = $points[$name] ?? null;
            if (null === $p) {
                throw new UnusableInput(
                    '/lines',
                    \sprintf('line "%s" runs through %s, which is not a point with a height', $line->name, $name),
                );
            }
            $vertices[] = [(float) $p->e, (float) $p->n, $line->isClosed() ? null : $p->h];
        }
        foreach ($line->vertices as $vertex) {
            $vertices[] = [(float) $vertex[0], (float) $vertex[1], null];
        }

        return new SurfaceLine($line->role, $line->name, $vertices);
    }
}
