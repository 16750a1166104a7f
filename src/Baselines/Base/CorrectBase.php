<?php

declare(strict_types=1);

namespace App\Baselines\Base;

use App\Baselines\Request\BaseRequest;
use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Survey\MovedPoint;
use App\Survey\PointRepository;
use App\Survey\PointRow;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Fault\UnusableInput;

/** Gives a base its right position or antenna height: everything measured from it moves. */
final class CorrectBase implements Operation
{
    public const KEPT = 'baseCorrected';

    private string $title = '';

    /** @var array<string, mixed> */
    private array $detail = [];

    public function __construct(
        private readonly BaseCorrection $correction,
        private readonly PointRepository $points,
        private readonly SurveyFileRepository $files,
        private readonly BaseRequest $request,
    ) {
    }

    public function name(): string
    {
        return 'correct-base';
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
        $names = [];
        foreach ($this->request->files as $id) {
            $file = $this->files->in($project, $id);
            if (null === $file || $file->isWaiting() || FileKind::Points->value !== $file->kind()) {
                throw new UnusableInput('/files', 'a base correction moves surveyed points of accepted files');
            }
            $names[] = $file->name();
        }
        [$shift, , $words] = $this->correction->shift($project, $this->request);
        $count = 0;
        $this->points->move($project, $journal, function (PointRow $p) use ($project, $shift, &$count): ?MovedPoint {
            $to = $this->correction->moved($project, $p, $this->request->files, $shift);
            if (null === $to) {
                return null;
            }
            ++$count;

            return new MovedPoint($to[0], $to[1], $to[2], $p->givenE, $p->givenN, $p->givenH, $p->known);
        });
        if (0 === $count) {
            throw new UnusableInput('/files', 'none of these files has a surveyed point to move');
        }
        $size = sqrt($shift->dx ** 2 + $shift->dy ** 2 + $shift->dz ** 2);
        $reason = '' === trim($this->request->reason) ? '' : ': '.trim($this->request->reason);
        $this->title = \sprintf(
            '%s of the base of %s: %d points moved by %.3f m%s', 'antenna' === $this->request->what ? 'Antenna height' : 'Right position',
            implode(', ', $names), $count, $size, $reason,
        );
        foreach ($this->request->files as $id) {
            $file = $this->files->in($project, $id);
            $file?->mean([self::KEPT => \sprintf('moved by %.3f m by %s', $size, $journal->authorName)] + $file->meaning());
        }
        $this->detail = ['shift' => [$shift->dx, $shift->dy, $shift->dz], 'understood' => $words] + (array) $this->request;
    }
}
