<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\EditedMeanwhile;
use App\Ledger\Journal;
use App\Ledger\LedgerEntryRepository;
use App\Ledger\Operation;
use App\Network\Request\ControlRequest;
use App\Project\Project;
use App\Survey\Given;
use App\Survey\Point;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;

/** Changes what is given about a control mark, or makes a point one. */
final class EditControl implements Operation
{
    private string $title = '';

    /** @param ?string $seen version of the point that was edited; null where the editor does not say */
    public function __construct(
        private readonly PointRepository $points,
        private readonly LedgerEntryRepository $entries,
        private readonly ControlRequest $values,
        private readonly ?string $seen,
    ) {
    }

    public function name(): string
    {
        return 'edit-control';
    }

    public function title(): string
    {
        return $this->title;
    }

    public function detail(): array
    {
        $values = (array) $this->values;
        unset($values['point']);

        return ['point' => $this->values->point, 'values' => $values];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $v = $this->values;
        $p = $this->points->named($project, $v->point) ?? throw new UnusableInput('/point', \sprintf('there is no point %s', $v->point));
        if (null !== $this->seen && (string) $p->version() !== $this->seen) {
            throw $this->edited($project, $p);
        }
        foreach (['e' => $v->e, 'n' => $v->n, 'h' => $v->h] as $c => $value) {
            if (null === $value && str_contains($v->held, $c)) {
                throw new UnusableInput("/$c", \sprintf('%s cannot be held without a value', $c));
            }
        }
        $isMoved = null !== $p->givenE && null !== $v->e;
        $moved = $isMoved ? \sprintf(', moved %.3f m in plan', hypot($v->e - $p->givenE, (float) $v->n - (float) $p->givenN)) : '';
        $p->give(new Given($v->e, $v->n, $v->h, $v->held, $v->sdE, $v->sdN, $v->sdH));
        $this->title = \sprintf('Changed control %s%s', $v->point, $moved);
    }

    private function edited(Project $project, Point $p): EditedMeanwhile
    {
        $entry = $p->version() > 0 ? $this->entries->numbered($project, $p->version()) : null;
        $theirs = [
            'point' => $p->name, 'e' => $p->givenE ?? $p->e, 'n' => $p->givenN ?? $p->n, 'h' => $p->givenH ?? $p->h, 'held' => $p->held,
            'sdE' => $p->sdE, 'sdN' => $p->sdN, 'sdH' => $p->sdH,
        ];

        return new EditedMeanwhile($p->name, $entry, $theirs, (string) $p->version());
    }
}
