<?php

declare(strict_types=1);

namespace App\Reference;

use App\Ledger\Journal;
use App\Ledger\Prepared;
use App\Project\Project;
use App\Reference\Request\ReferenceRequest;
use App\Survey\MovedPoint;
use App\Survey\Point;
use App\Survey\PointRepository;
use App\Survey\PointRow;
use Mensura\Fault\UnusableInput;

/**
 * Gives the project another system, other heights or another geoid. Everything known globally follows; what is known
 * only locally keeps its numbers and is marked so. All or nothing. Where points come to lie is worked out before the lock
 * is taken.
 */
final class ChangeReference implements Prepared
{
    private string $title = '';

    /** @var array<string, mixed> */
    private array $detail = [];

    private ?Movement $movement = null;

    /** @var array<int, MovedPoint> by the point's id */
    private array $moved = [];

    public function __construct(
        private readonly PointRepository $points,
        private readonly ProjectReference $references,
        private readonly Followers $followers,
        private readonly ReferenceRequest $to,
    ) {
    }

    public function name(): string
    {
        return 'change-reference';
    }

    public function title(): string
    {
        return $this->title;
    }

    public function detail(): array
    {
        return $this->detail;
    }

    /**
     * The way points would go; null when they keep their numbers.
     *
     * @throws UnusableInput when the change is not possible
     */
    public function way(Project $project): ?Movement
    {
        $this->check($project);
        $from = $this->references->of($project);
        $to = $this->references->system($project->id(), $this->to->reference);
        if (null === $from || null === $to || 0 === $this->points->countMovable($project)) {
            return null;
        }
        $stays = $project->reference() === $this->to->reference;
        $geoid = 'geoid' === $this->to->heights ? $this->references->geoid($project->id(), $this->to->geoid) : null;
        $prefer = '' === $this->to->operation ? null : $this->to->operation;

        return Movement::between(
            $this->references->finder($project->id()), new Side($from, $this->references->geoidOf($project)),
            new Side($stays ? $from : $to, $geoid),
            $this->references->extent($project), $prefer, $this->to->epoch,
        );
    }

    public function prepare(Project $project): void
    {
        $this->movement = $this->way($project);
        $this->moved = [];
        if (null === $this->movement) {
            return;
        }
        $known = $this->isPlane($project) ? Point::LOCALLY : Point::GLOBALLY;
        $movement = $this->movement;
        foreach ($this->points->known($project, Point::GLOBALLY) as $p) {
            $way = static fn (float $e, float $n, ?float $h): array => $movement->apply($p->name, $e, $n, $h);
            $this->moved[$p->id] = MovedPoint::along($p, $known, $way);
        }
    }

    public function apply(Project $project, Journal $journal): void
    {
        $isPlane = $this->isPlane($project);
        $stay = 0;
        $this->points->move($project, $journal, function (PointRow $p) use ($isPlane, &$stay): MovedPoint {
            if (null === $moved = $this->moved[$p->id] ?? null) {
                ++$stay;
            }

            return $moved ?? MovedPoint::staying($p, $isPlane ? Point::LOCALLY : $p->known);
        });
        $from = ['reference' => $project->reference(), 'heights' => $project->heights(), 'geoid' => $project->geoid()];
        $to = [
            'reference' => $this->to->reference, 'heights' => $this->to->heights,
            'geoid' => 'geoid' === $this->to->heights ? $this->to->geoid : '',
        ];
        if (null !== $movement = $this->movement) {
            $this->followers->move($project, static function (string $what, float $e, float $n) use ($movement): array {
                [$x, $y] = $movement->apply($what, $e, $n, null);

                return [$x, $y];
            }, new Step($from, $to, $movement->transformation(), $this->to->epoch));
        }
        $project->refer($to['reference'], $to['heights'], $to['geoid']);
        $this->say($project, $stay);
        $this->detail = [
            'from' => $from, 'to' => $to, 'moved' => \count($this->moved), 'localOnly' => $stay,
            'operation' => $movement?->route->describe()['operation'],
        ];
    }

    private function say(Project $project, int $stay): void
    {
        $label = $this->references->system($project->id(), $this->to->reference)?->label() ?? 'plane local system';
        $heights = match ($this->to->heights) {
            'geoid' => 'heights above '.$this->references->geoid($project->id(), $this->to->geoid)->name,
            'ellipsoidal' => 'ellipsoidal heights',
            default => 'local heights',
        };
        $followed = [] === $this->moved ? '' : \sprintf('; %d points followed', \count($this->moved));
        $stayed = 0 === $stay || null === $this->movement ? '' : \sprintf(', %d known only locally stay', $stay);
        $this->title = \sprintf('Stated the reference: %s, %s%s%s', $label, $heights, $followed, $stayed);
    }

    private function isPlane(Project $project): bool
    {
        return Project::PLANE === $this->to->reference || $project->isPlane();
    }

    private function check(Project $project): void
    {
        if (Project::PLANE === $this->to->reference) {
            if ('local' !== $this->to->heights) {
                throw new UnusableInput('/heights', 'a plane local system has local heights');
            }

            return;
        }
        $system = $this->references->projected($project->id(), $this->to->reference);
        if ('local' === $this->to->heights) {
            throw new UnusableInput('/heights', 'a projected system has ellipsoidal heights or heights above a geoid');
        }
        if ('geoid' !== $this->to->heights) {
            return;
        }
        $geoid = $this->references->geoid($project->id(), $this->to->geoid);
        ProjectReference::fits($geoid, $system);
        $extent = $this->references->extent($project);
        if (null !== $extent && $project->reference() === $this->to->reference && !$geoid->area()->covers($extent)) {
            $words = 'the geoid %s does not cover the project: it reaches from %.3f to %.3f degrees north and %.3f to %.3f degrees east';
            throw new UnusableInput('/geoid', \sprintf($words, $geoid->name, $geoid->south, $geoid->north(), $geoid->west, $geoid->east()));
        }
    }
}
