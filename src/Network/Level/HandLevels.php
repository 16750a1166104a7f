<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Network\Request\LevelHandRequest;
use App\Project\Project;
use App\Survey\Given;
use App\Survey\Observation;
use App\Survey\ObservationRepository;
use App\Survey\Point;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;

/** Hands the levelled differences to the network, in the place of those handed before. */
final class HandLevels implements Operation
{
    /** Sets of observations that come from the levelling book begin with this. */
    public const SET = 'level ';

    private int $count = 0;
    private string $sd = '';

    public function __construct(
        private readonly LevelDesk $desk,
        private readonly ObservationRepository $observations,
        private readonly PointRepository $points,
        private readonly LevelHandRequest $request,
    ) {
    }

    public function name(): string
    {
        return 'hand-levels';
    }

    public function title(): string
    {
        return \sprintf(
            'Handed %d levelled differences to the network, %s, %s', $this->count,
            'raw' === $this->request->as ? 'as measured' : 'adjusted', $this->sd,
        );
    }

    public function detail(): array
    {
        return (array) $this->request;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $book = $this->desk->work($project);
        if ([] === $book->network) {
            throw new UnusableInput('', 'the levelling book has no difference between two points; write a run first');
        }
        $heights = array_column(array_map(static fn ($p): array => ['id' => 'p'.$p->id, 'h' => $p->h], $book->points), 'h', 'id');
        [$perKm, $perSetup] = LevelDesk::spread($book);
        $this->observations->removeLevelled($project, self::SET);
        $known = $this->desk->benchmarks($project);
        foreach ($book->network as $line) {
            $sd = $this->standardDeviation($line, $perKm, $perSetup);
            $value = 'raw' === $this->request->as ? $line['value'] : $heights['p'.$line['to']] - $heights['p'.$line['from']];
            $o = new Observation(
                $project, 'height-difference', mb_substr(self::SET.$line['run'], 0, 60), $line['from'], $line['to'],
                $value,
            );
            $o->sd = $sd;
            $o->length = $line['length'];
            $this->observations->add($o);
            ++$this->count;
            foreach ([$line['from'], $line['to']] as $name) {
                if (isset($known["p$name"]) && null === $this->points->named($project, $name)) {
                    $this->points->add($point = new Point($project, $name, Point::CONTROL, Point::FROM_FILE, Point::GLOBALLY));
                    $point->give(new Given(null, null, $known["p$name"], 'h'));
                    unset($known["p$name"]);
                }
            }
        }
    }

    /** @param array{run: string, from: string, to: string, value: float, length: ?float, setups: int} $line */
    private function standardDeviation(array $line, ?float $perKm, ?float $perSetup): float
    {
        $byLength = 'length' === $this->request->weight
            || 'misclosure' === $this->request->weight
            && null !== $perKm
            && null !== $line['length'];
        if ($byLength && null === $line['length']) {
            throw new UnusableInput('/weight', \sprintf(
                'run %s, %s to %s: a sight length is missing, so its weight cannot go by length; choose weights by setups or by misclosure',
                $line['run'], $line['from'], $line['to'],
            ));
        }
        $sigma = match ($this->request->weight) {
            'misclosure' => ($byLength ? $perKm : $perSetup) ?? throw new UnusableInput('/weight',
                'nothing closes in this book, so there is no misclosure to weight by; choose weights by length or by setups'),
            default => $this->request->sigma ?? throw new UnusableInput('/sigma', 'give the standard deviation of a kilometre or a setup'),
        };
        if ($sigma < 1e-6) {
            throw new UnusableInput(
                '/weight',
                'the misclosures are all zero, which is no measure of precision; choose weights by length or by setups',
            );
        }
        $this->sd = \sprintf('%.1f mm %s', 1000.0 * $sigma, $byLength ? 'a kilometre' : 'a setup');

        return $sigma * sqrt($byLength ? (float) $line['length'] / 1000.0 : $line['setups']);
    }
}
