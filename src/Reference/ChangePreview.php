<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Reference\Request\ReferenceRequest;
use App\Reference\View\CandidateView;
use App\Reference\View\MovedRow;
use App\Reference\View\MovePreview;
use App\Survey\Point;
use App\Survey\PointRepository;
use App\Survey\PointRow;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Operation\NoWay;

/** What a change of reference would move, without moving it. */
final class ChangePreview
{
    private const SHOWN_ROWS = 500;

    public function __construct(private readonly ProjectReference $references, private readonly PointRepository $points)
    {
    }

    public function of(Project $project, ReferenceRequest $request, ChangeReference $change): MovePreview
    {
        $extent = $this->references->extent($project);
        $candidates = $this->candidates($project, $request->reference, $extent);
        try {
            $movement = $change->way($project);
            [$rows, $moved, $local] = $this->rows($project, $movement);
        } catch (UnusableInput $e) {
            return new MovePreview('', null, [], 0, 0, $candidates, [], $e->reason);
        }
        $centre = null === $extent ? [null, null] : [
            deg2rad(($extent->south + $extent->north) / 2.0), deg2rad($extent->west + $extent->width() / 2.0),
        ];
        $route = $movement?->route->describe(...$centre);
        $warnings = [...($movement->route->warnings ?? []), ...$this->warnings($project, $request->reference, $extent)];

        return new MovePreview(
            null === $route ? 'no coordinates are computed' : $route['operation'], $route['accuracy'] ?? null, $rows,
            $moved, $local, $candidates,
            array_values(array_unique($warnings)), '',
        );
    }

    /**
     * Control and adjusted points stand first.
     *
     * @return array{list<MovedRow>, int, int} the first rows, how many would move, how many would stay
     */
    private function rows(Project $project, ?Movement $movement): array
    {
        $first = $rest = [];
        $moved = $local = 0;
        foreach ($this->points->rows($project) as $p) {
            if (null === $p->e || null === $p->n) {
                continue;
            }
            $moves = null !== $movement && Point::GLOBALLY === $p->known;
            [$e, $n, $h] = $moves ? $movement->apply($p->name, $p->e, $p->n, $p->h) : [$p->e, $p->n, $p->h];
            $moves ? ++$moved : ++$local;
            $list = Point::SURVEYED === $p->role ? 'rest' : 'first';
            if (\count($$list) < self::SHOWN_ROWS) {
                $$list[] = self::row($p, $e, $n, $h, $moves);
            }
        }

        return [\array_slice([...$first, ...$rest], 0, self::SHOWN_ROWS), $moved, $local];
    }

    private static function row(PointRow $p, float $e, float $n, ?float $h, bool $moves): MovedRow
    {
        return new MovedRow($p->name, (float) $p->e, (float) $p->n, $p->h, $e, $n, $h, $moves ? Point::GLOBALLY : Point::LOCALLY);
    }

    /** @return list<CandidateView> */
    private function candidates(Project $project, string $reference, ?Area $extent): array
    {
        $from = $this->references->of($project);
        $to = $this->references->system($project->id(), $reference);
        if (null === $from || null === $to) {
            return [];
        }
        try {
            $ways = $this->references->finder($project->id())->ways(ProjectReference::spatial($from), ProjectReference::spatial($to), true);
        } catch (NoWay) {
            return []; // said by the change itself
        }

        return SystemDescription::candidates($ways, $extent);
    }

    /** @return list<string> */
    private function warnings(Project $project, string $reference, ?Area $extent): array
    {
        $to = $this->references->system($project->id(), $reference);
        $warnings = [];
        if (null !== $to?->area && null !== $extent && !$to->area->covers($extent)) {
            $warnings[] = \sprintf('the points lie outside the area of use of %s (%s)', $to->label(), $to->area->shortName());
        }
        if (null !== $to && $to->deprecated) {
            $warnings[] = \sprintf('%s is deprecated%s', $to->label(), null === $to->successor ? '' : '; use '.$to->successor);
        }

        return $warnings;
    }
}
