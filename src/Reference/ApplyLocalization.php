<?php

declare(strict_types=1);

namespace App\Reference;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Survey\MovedPoint;
use App\Survey\Point;
use App\Survey\PointRepository;
use App\Survey\PointRow;
use Mensura\Fault\UnusableInput;

/** Brings everything known only locally onto the grid of a localization; a plane project becomes one in that system. */
final class ApplyLocalization implements Operation
{
    /** Metres; no place on the earth has larger numbers, whatever the projection. */
    private const FARTHEST = 1e8;

    private string $title = '';

    /** @var array<string, mixed> */
    private array $detail = [];

    public function __construct(
        private readonly PointRepository $points,
        private readonly ProjectReference $references,
        private readonly Localizations $localizations,
        private readonly Followers $followers,
        private readonly int $localization,
    ) {
    }

    public function name(): string
    {
        return 'apply-localization';
    }

    public function title(): string
    {
        return $this->title;
    }

    public function detail(): array
    {
        return $this->detail;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $l = $this->localizations->read($project, $this->localization);
        $wasPlane = $project->isPlane();
        $this->check($project, $l);
        $moved = 0;
        $way = static function (float $e, float $n, ?float $h) use ($l): array {
            $place = $l->toGrid($e, $n, $h);
            if (max(abs($place[0]), abs($place[1]), abs((float) $place[2])) > self::FARTHEST) {
                throw new UnusableInput('/localization', \sprintf('"%s" leads to no place on the earth; fit or import it again', $l->name));
            }

            return $place;
        };
        $this->points->move($project, $journal, static function (PointRow $p) use ($way, &$moved): ?MovedPoint {
            if (Point::LOCALLY !== $p->known) {
                return null;
            }
            ++$moved;

            return MovedPoint::along($p, Point::GLOBALLY, $way);
        });
        if (0 === $moved && !$wasPlane) {
            throw new UnusableInput(
                '/localization',
                'no point of the project is known only locally; there is nothing to bring onto the grid',
            );
        }
        if ($wasPlane) {
            $from = ['reference' => $project->reference(), 'heights' => $project->heights(), 'geoid' => $project->geoid()];
            $to = ['reference' => $l->system, 'heights' => $l->heightKind, 'geoid' => $l->geoid];
            $step = new Step($from, $to, localization: $this->localization);
            $place = static fn (string $what, float $e, float $n): array => \array_slice($way($e, $n, null), 0, 2);
            $this->followers->move($project, $place, $step);
            $project->refer($l->system, $l->heightKind, $l->geoid);
        }
        $this->title = \sprintf('Applied the localization %s: %d points now in %s', $l->name, $moved, $l->system);
        $this->detail = ['localization' => $l->name, 'moved' => $moved, 'system' => $l->system, 'heights' => $l->heights];
    }

    private function check(Project $project, ReadLocalization $l): void
    {
        if ($project->isPlane()) {
            $target = $this->references->projected($project->id(), $l->system);
            if ('geoid' === $l->heightKind) {
                ProjectReference::fits($this->references->geoid($project->id(), $l->geoid), $target);
            }
        } elseif (!$l->leadsTo($project)) {
            $words = '"%s" leads to %s with %s heights, but the project is in %s with %s heights; change the project\'s system first';
            throw new UnusableInput(
                '/localization',
                \sprintf($words, $l->name, $l->system, $l->heightKind, $project->reference(), $project->heights()),
            );
        }
    }
}
