<?php

declare(strict_types=1);

namespace App\Network\Book;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Network\Request\EccentricRequest;
use App\Project\Project;
use App\Survey\Correction;
use App\Survey\CorrectionRepository;
use App\Survey\ObservationRepository;
use Mensura\Fault\UnusableInput;
use Mensura\TotalStation\Eccentricity;

/** Reduces pointings to the mark their target stood beside: a correction, so that what was read stays beside it. */
final class CentreTargets implements Operation
{
    public const CAUSE = 'eccentric-target';

    /** @var list<string> */
    private array $targets = [];

    public function __construct(
        private readonly ObservationRepository $observations,
        private readonly CorrectionRepository $corrections,
        private readonly EccentricRequest $request,
    ) {
    }

    public function name(): string
    {
        return 'centre-targets';
    }

    public function title(): string
    {
        return $this->words().('' === $this->request->reason ? '' : ': '.$this->request->reason);
    }

    public function detail(): array
    {
        return (array) $this->request;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $r = $this->request;
        if (0.0 === $r->right && 0.0 === $r->onwards && 0.0 === $r->up) {
            throw new UnusableInput('/right', 'say how far the mark lies from the target: right, onwards or up');
        }
        $wanted = array_flip($r->pointings);
        $changes = [];
        foreach (StationBook::setups($this->observations->rows($project)) as $setup) {
            foreach ($setup->pointings as $p) {
                if ([] === array_filter($p, static fn ($row): bool => isset($wanted[$row->id]))) {
                    continue;
                }
                foreach ($p as $row) {
                    unset($wanted[$row->id]);
                    $this->targets[] = $row->to;
                }
                if (!isset($p['zenith'], $p['slope-distance'])) {
                    throw new UnusableInput('/pointings', \sprintf(
                        'the sight %s to %s lacks its zenith angle or its distance, so it cannot be reduced',
                        $setup->station, reset($p)->to ?? '',
                    ));
                }
                $zenith = $p['zenith'];
                $slope = $p['slope-distance'];
                [$turn, $z, $s] = (new Eccentricity($r->right, $r->onwards, $r->up))->applied($zenith->v1, $slope->v1);
                if (isset($p['direction'])) {
                    $changes[] = ['id' => $p['direction']->id, 'field' => 'v1', 'add' => $turn];
                }
                $changes[] = ['id' => $zenith->id, 'field' => 'v1', 'add' => $z - $zenith->v1];
                $changes[] = ['id' => $slope->id, 'field' => 'v1', 'add' => $s - $slope->v1];
            }
        }
        if ([] !== $wanted) {
            throw new UnusableInput('/pointings', 'are of the total-station book of this project');
        }
        $this->targets = array_values(array_unique($this->targets));
        $this->corrections->add(new Correction(
            $project, self::CAUSE, $this->words(), $r->reason, $journal->authorName, $journal->at, $changes,
        ));
    }

    private function words(): string
    {
        $r = $this->request;
        $parts = [];
        foreach ([['right', 'left', $r->right], ['onwards', 'nearer', $r->onwards], ['higher', 'lower', $r->up]] as [$plus, $minus, $by]) {
            if (0.0 !== $by) {
                $parts[] = \sprintf('%.3f m %s', abs($by), $by > 0.0 ? $plus : $minus);
            }
        }

        $targets = implode(', ', \array_slice($this->targets, 0, 5)).(\count($this->targets) > 5 ? ' …' : '');

        return \sprintf('Reduced to the mark: %s, which lies %s', $targets, implode(', ', $parts));
    }
}
