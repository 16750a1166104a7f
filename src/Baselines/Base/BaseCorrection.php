<?php

declare(strict_types=1);

namespace App\Baselines\Base;

use App\Baselines\MarkPlace;
use App\Baselines\Request\BaseRequest;
use App\Baselines\View\BaseMoveView;
use App\Baselines\View\BasePreview;
use App\Project\Project;
use App\Survey\Point;
use App\Survey\PointRepository;
use App\Survey\PointRow;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\BaseShift;
use Mensura\Gnss\Horizon;

/** Works out where all that was measured from a base goes when the base gets its right position. */
final class BaseCorrection
{
    /** Rows of a preview: more would make the answer slow, and no one reads them. */
    private const SHOWN = 2000;

    public function __construct(
        private readonly PointRepository $points,
        private readonly MarkPlace $places,
        private readonly RightPosition $right,
    ) {
    }

    /**
     * @return array{BaseShift, array{float, float, float}, string} the shift, the base as it is in the project, and how that was understood
     *
     * @throws UnusableInput
     */
    public function shift(Project $project, BaseRequest $r): array
    {
        if ($project->isPlane()) {
            throw new UnusableInput(
                '', 'a plane project knows no place on the earth, so vectors from a base cannot be moved; give it a system first',
            );
        }
        $used = $this->places->geocentric($project, $r->usedE, $r->usedN, $r->usedH);
        if ('antenna' === $r->what) {
            if (null === $r->antennaUsed || null === $r->antennaRight) {
                throw new UnusableInput('/antennaRight', 'give the antenna height that was used, and the right one');
            }
            $words = \sprintf('antenna height %.4f m was used, %.4f m is right', $r->antennaUsed, $r->antennaRight);

            // A greater height means that the mark, and all points with it, lie lower.
            return [
                BaseShift::ofAntenna($used, $r->antennaRight, $r->antennaUsed),
                [$r->usedE, $r->usedN, $r->usedH + $r->antennaUsed - $r->antennaRight], $words,
            ];
        }
        [$right, $words] = $this->right->of($project, $r);

        return [BaseShift::between($used, $this->places->geocentric($project, ...$right)), $right, $words];
    }

    public function preview(Project $project, BaseRequest $r): BasePreview
    {
        [$shift, $right, $words] = $this->shift($project, $r);
        $rows = [];
        $count = 0;
        foreach ($this->points->rows($project) as $p) {
            $to = $this->moved($project, $p, $r->files, $shift);
            if (null === $to) {
                continue;
            }
            ++$count;
            if (\count($rows) < self::SHOWN) {
                $rows[] = new BaseMoveView($p->name, $p->code, (float) $p->e, (float) $p->n, $p->h, ...$to);
            }
        }
        $used = $this->places->geocentric($project, $r->usedE, $r->usedN, $r->usedH);
        $local = Horizon::of($used)->components($shift->dx, $shift->dy, $shift->dz);

        return new BasePreview($rows, $count, $local, $right, $words);
    }

    /**
     * @param list<int> $files
     *
     * @return ?array{float, float, ?float} where a point goes; null when it was not measured from the base
     */
    public function moved(Project $project, PointRow $p, array $files, BaseShift $shift): ?array
    {
        $isOurs = null !== $p->fileId && \in_array($p->fileId, $files, true) && Point::GLOBALLY === $p->known
            && Point::SURVEYED === $p->role && Point::FROM_FILE === $p->source;
        if (!$isOurs || null === $p->e || null === $p->n) {
            return null;
        }
        $place = $this->places->inProject($project, $shift->applied($this->places->geocentric($project, $p->e, $p->n, $p->h ?? 0.0)))
            ?? throw new UnusableInput('', \sprintf('%s would lie outside the system of the project', $p->name));

        return [round($place[0], 5), round($place[1], 5), null === $p->h ? null : round($place[2], 5)];
    }
}
