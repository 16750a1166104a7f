<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Result\Basis;
use App\Result\ContentVersions;
use App\Result\Outcome;
use App\Result\Result;
use App\Result\Results;
use App\Survey\AcceptedVectors;
use App\Survey\Observation;
use App\Survey\ObservationRepository;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\BaselineSolution;

/** Processed baselines become vectors of the network, with their covariance; those accepted before stay, or are replaced. */
final class AcceptVectors implements Operation
{
    private string $title = '';

    /** @param list<string> $slots of the baselines that are accepted now */
    public function __construct(
        private readonly Results $results,
        private readonly ObservationRepository $observations,
        private readonly array $slots,
    ) {
    }

    public function name(): string
    {
        return 'accept-vectors';
    }

    public function title(): string
    {
        return $this->title;
    }

    public function detail(): array
    {
        return ['baselines' => $this->slots];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $current = $this->results->current($project);
        $stale = $this->results->stale($project);
        $inputs = ($current[AcceptedVectors::SLOT] ?? null)->inputs ?? [];
        $floats = 0;
        foreach ($this->slots as $slot) {
            $result = $current[$slot] ?? throw new UnusableInput('/baselines', 'this baseline is not processed yet');
            if (isset($stale[$slot])) {
                throw new UnusableInput(
                    '/baselines', \sprintf('%s is stale: %s; process it again, then accept', $result->label, $stale[$slot][0]),
                );
            }
            if (true === ($result->summary['moves'] ?? false)) {
                throw new UnusableInput('/baselines', \sprintf('%s has a track, not one vector: its receiver moved', $result->label));
            }
            if (BaselineSolution::CODE === $result->summary['solution']) {
                throw new UnusableInput(
                    '/baselines', \sprintf('%s rests on codes alone, good to decimetres; it is no vector for a network', $result->label),
                );
            }
            $floats += BaselineSolution::FLOAT === $result->summary['solution'] ? 1 : 0;
            $this->accept($project, $result);
            $inputs[Result::RESULT.$slot] = $result->output;
        }
        ksort($inputs);
        $float = 0 === $floats ? '' : \sprintf(', %d of them float', $floats);
        $this->title = 1 === \count($this->slots)
            ? \sprintf('Accepted %s to the network%s', lcfirst($current[$this->slots[0]]->label), 1 === $floats ? ', float' : '')
            : \sprintf('Accepted %d baselines to the network%s', \count($this->slots), $float);
        $this->results->record($project, $journal, new Outcome(
            AcceptedVectors::SLOT, 'vectors', 'Accepted vectors', new Basis($inputs), [], ['count' => \count($inputs)],
            ContentVersions::hash($inputs),
        ));
    }

    private function accept(Project $project, Result $result): void
    {
        $s = $result->summary;
        $this->observations->removeVectors($project, (string) $s['session'], (string) $s['fromName'], (string) $s['toName']);
        $o = new Observation(
            $project, 'vector', (string) $s['session'], (string) $s['fromName'], (string) $s['toName'], round((float) $s['vector'][0], 5),
        );
        $o->v2 = round((float) $s['vector'][1], 5);
        $o->v3 = round((float) $s['vector'][2], 5);
        $o->covariance = array_values(array_map(
            static fn (array $row): array => array_values(array_map(floatval(...), $row)), (array) $s['covariance'],
        ));
        $this->observations->add($o);
    }
}
