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
     * @param list<DefinedLine> $lines
     * @param ?float            $maxEdge  metres
     * @param float             $interval of the contours, metres
     * @param int               $index    every which contour is an index contour
     * @param bool              $smooth   whether contours are drawn on the surface bent smoothly
     * @param bool              $mean     whether breaklines may cross at different heights, the mean taken
     * @param ?TakenDrawing      $design   whose faces are the surface, in place of points; null where points make it
     * @param list<TakenDrawing> $drawn    drawings whose lines are breaklines, boundaries or voids
     * @param ?TakenCloud        $cloud    whose points are taken with those of the project
     */
    public function __construct(
        public Selection $selection,
        public array $lines = [],
        public ?float $maxEdge = null,
        public float $interval = 1.0,
        public int $index = 5,
        public bool $smooth = false,
        public bool $mean = false,
        public ?TakenDrawing $design = null,
        public array $drawn = [],
        public ?TakenCloud $cloud = null,
    ) {
    }

    /** @throws UnusableInput */
    public static function fromRequest(SurfaceRequest $request): self
    {
        $lists = ['roles' => $request->roles, 'codes' => $request->codes, 'include' => $request->include, 'exclude' => $request->exclude];
        foreach ($lists as $field => $texts) {
            foreach (array_values($texts) as $i => $text) {
                if (!\is_string($text)) {
                    throw new UnusableInput("/$field/$i", 'is a text');
                }
            }
        }
        if ([] !== $unknown = array_diff($request->roles, self::ROLES)) {
            throw new UnusableInput('/roles', \sprintf('"%s" is not a role of points', reset($unknown)));
        }
        $design = null === $request->design ? null : TakenDrawing::fromArray($request->design, '/design');
        $cloud = null === $request->cloud ? null : TakenCloud::fromArray($request->cloud);
        if (null === $design && null === $cloud && [] === $request->roles) {
            throw new UnusableInput('/roles', 'say which points make it: held and weighted control, adjusted or surveyed ones');
        }
        $drawn = [];
        foreach (array_values($request->drawn) as $i => $d) {
            $drawn[] = TakenDrawing::fromArray(\is_array($d) ? $d : [], "/drawn/$i");
        }
        $lines = [];
        foreach (array_values($request->lines) as $i => $line) {
            $lines[] = DefinedLine::fromRequest($line, "/lines/$i");
        }
        $selection = new Selection(
            array_values($request->roles), array_values($request->codes), trim($request->pattern), Selection::areas($request->areas),
            array_values($request->include), array_values($request->exclude),
        );

        return new self(
            $selection, $lines, $request->maxEdge, $request->interval, $request->index, $request->smooth, 'mean' === $request->crossing,
            $design, $drawn, $cloud,
        );
    }

    /** @param array<string, mixed> $d as {@see toArray()} */
    public static function fromArray(array $d): self
    {
        $lines = array_values(array_map(DefinedLine::fromArray(...), $d['lines'] ?? []));
        $selection = new Selection(
            $d['roles'] ?? [], $d['codes'] ?? [], $d['pattern'] ?? '', Selection::areas($d['areas'] ?? []), $d['include'] ?? [],
            $d['exclude'] ?? [],
        );

        return new self(
            $selection, $lines, $d['maxEdge'] ?? null, (float) ($d['interval'] ?? 1.0), (int) ($d['index'] ?? 5),
            (bool) ($d['smooth'] ?? false), 'mean' === ($d['crossing'] ?? ''),
            isset($d['design']) ? TakenDrawing::fromArray($d['design'], '/design') : null,
            array_values(array_map(static fn (array $t): TakenDrawing => TakenDrawing::fromArray($t, '/drawn'), $d['drawn'] ?? [])),
            isset($d['cloud']) ? TakenCloud::fromArray($d['cloud']) : null,
        );
    }

    /** @return array<string, mixed> what is not said is left out, so that a definition from before it could be said stays the same */
    public function toArray(): array
    {
        $s = $this->selection;
        $more = ['pattern' => $s->pattern, 'areas' => $s->areas, 'include' => $s->include, 'smooth' => $this->smooth];
        $crossing = $this->mean ? ['crossing' => 'mean'] : [];
        $taken = array_filter([
            'design' => $this->design?->toArray(), 'drawn' => array_map(static fn (TakenDrawing $t): array => $t->toArray(), $this->drawn),
            'cloud' => $this->cloud?->toArray(),
        ]);

        return [
            'lines' => array_map(static fn (DefinedLine $l): array => (array) $l, $this->lines), 'roles' => $s->roles, 'codes' => $s->codes,
            'exclude' => $s->exclude, 'maxEdge' => $this->maxEdge, 'interval' => $this->interval,
        ] + array_filter($more) + (5 === $this->index ? [] : ['index' => $this->index]) + $crossing + $taken;
    }

    /**
     * The same definition with other lines and areas.
     *
     * @param \Closure(DefinedLine): DefinedLine    $line
     * @param ?\Closure(list<float>): list<float> $place
     */
    public function moved(\Closure $line, ?\Closure $place = null): self
    {
        $s = $this->selection;
        $areas = null === $place ? $s->areas : Selection::areas(array_map(
            static fn (array $corners): array => array_map($place, $corners), $s->areas,
        ));

        return $this->with(
            new Selection($s->roles, $s->codes, $s->pattern, $areas, $s->include, $s->exclude), array_map($line, $this->lines),
        );
    }

    /** @param \Closure(string): string $rename */
    public function renamed(\Closure $rename): self
    {
        $s = $this->selection;
        $names = static fn (array $names): array => array_values(array_unique(array_map($rename, $names)));

        return $this->with(
            new Selection($s->roles, $s->codes, $s->pattern, $s->areas, $names($s->include), $names($s->exclude)), $this->lines,
        );
    }

    /** The same with one point of its cloud to a square of that side, metres. */
    public function thinned(float $spacing): self
    {
        $cloud = null === $this->cloud ? null : new TakenCloud($this->cloud->file, $this->cloud->classes, $spacing);

        return $this->with($this->selection, $this->lines, $cloud);
    }

    /** @param list<DefinedLine> $lines */
    private function with(Selection $selection, array $lines, ?TakenCloud $cloud = null): self
    {
        return new self(
            $selection, $lines, $this->maxEdge, $this->interval, $this->index, $this->smooth, $this->mean, $this->design, $this->drawn,
            $cloud ?? $this->cloud,
        );
    }

    /**
     * @param iterable<PointRow> $points of the project, placed
     * @param list<SurfaceLine>  $drawn  lines of drawings
     * @param ?array{list<float>, list<float>, list<float>} $cloud easting, northing and height of more points
     *
     * @throws UnusableInput
     */
    public function builder(iterable $points, array $drawn = [], ?array $cloud = null): SurfaceBuilder
    {
        $x = $y = $z = $names = [];
        foreach ($cloud[0] ?? [] as $i => $e) {
            $n = $cloud[1][$i] ?? 0.0;
            if ($this->selection->isInside($e, $n)) {
                $x[] = $e;
                $y[] = $n;
                $z[] = $cloud[2][$i] ?? 0.0;
                $names[] = 'cloud '.($i + 1);
            }
        }
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
            if ($this->selection->takes($p)) {
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
            [...array_map(static fn (DefinedLine $l): SurfaceLine => self::line($l, $through), $this->lines), ...$drawn], $this->mean,
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
