<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Result\Basis;
use App\Result\Outcome;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\AcceptedCoordinates;
use App\Survey\Point;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;

/** Adjusted values become the project's coordinates. */
final class AcceptCoordinates implements Operation
{
    public const KIND = 'coordinates';

    /** To the hundredth of a millimetre: what is stored is what is shown and handed over. */
    private const DECIMALS = 5;

    private string $title = '';

    /** @var array{run?: int, largestMove?: float} */
    private array $detail = [];

    public function __construct(
        private readonly PointRepository $points,
        private readonly Results $results,
        private readonly FileStore $store,
    ) {
    }

    public function name(): string
    {
        return 'accept-coordinates';
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
        $network = $this->acceptable($project);
        $stations = $this->store->getJson($network->output)['stations'];
        $existing = $this->points->allNamed($project, array_map(strval(...), array_column($stations, 'id')));
        $largest = 0.0;
        $where = '';
        $hash = hash_init('sha256');
        foreach ($stations as $s) {
            if (null === $s['e']) {
                continue; // a height without a plan position
            }
            $name = (string) $s['id'];
            [$e, $n, $h] = [round($s['e'], self::DECIMALS), round($s['n'], self::DECIMALS), round($s['h'], self::DECIMALS)];
            hash_update($hash, json_encode([$name, $e, $n, $h], \JSON_THROW_ON_ERROR));
            $p = $existing[$name] ?? null;
            if (null === $p) {
                $p = new Point($project, $name, Point::ADJUSTED, Point::ADJUSTED, $project->isPlane() ? Point::LOCALLY : Point::GLOBALLY);
                $this->points->add($p);
            } elseif (null !== $p->e && ($moved = hypot($e - $p->e, $n - (float) $p->n)) > $largest) {
                [$largest, $where] = [$moved, $name];
            }
            $p->moveTo($e, $n, $h);
            $p->source = Point::ADJUSTED;
            $p->known = $project->isPlane() ? $p->known : Point::GLOBALLY;
        }
        $move = $largest > 0.0 ? \sprintf('; largest move %.1f mm at %s', 1000.0 * $largest, $where) : '';
        $this->title = \sprintf('Accepted coordinates of %d stations from run %d%s', \count($stations), $network->run, $move);
        $this->detail = ['run' => $network->run, 'largestMove' => $largest];
        $this->results->record($project, $journal, new Outcome(
            AcceptedCoordinates::SLOT, self::KIND, 'Accepted coordinates', new Basis([Result::RESULT.Adjuster::SLOT => $network->output]),
            ['run' => $network->run], ['stations' => \count($stations)], hash_final($hash),
        ));
    }

    private function acceptable(Project $project): Result
    {
        $network = $this->results->current($project)[Adjuster::SLOT] ?? null;
        if (null === $network) {
            throw new UnusableInput('', 'there is no adjustment to accept; adjust the network first');
        }
        if (isset($this->results->stale($project)[Adjuster::SLOT])) {
            throw new UnusableInput('', 'the adjustment is stale; adjust again, then accept');
        }
        if (!AdjustmentSummary::of($network)->converged) {
            throw new UnusableInput('', 'the adjustment did not converge, so it has no coordinates to accept');
        }

        return $network;
    }
}
