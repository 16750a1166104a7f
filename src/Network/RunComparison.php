<?php

declare(strict_types=1);

namespace App\Network;

use App\Network\View\ChangedVerdictView;
use App\Network\View\RunsComparedView;
use App\Network\View\ShiftView;
use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\ObservationRepository;
use Mensura\Fault\UnusableInput;

/** Compares two kept runs of the adjustment. */
final readonly class RunComparison
{
    public function __construct(private Results $results, private FileStore $store, private ObservationRepository $observations)
    {
    }

    /** @throws UnusableInput when a run of that number is not kept */
    public function of(Project $project, int $earlier, int $later): RunsComparedView
    {
        [$a, $b] = [$this->run($project, $earlier), $this->run($project, $later)];
        [$before, $after] = [StoredAdjustment::of($this->store, $a), StoredAdjustment::of($this->store, $b)];
        $shifts = [];
        foreach ($after->stations as $name => $s) {
            $was = $before->stations[$name] ?? null;
            if (null !== $was) {
                $shifts[] = new ShiftView((string) $name, $s['e'] - $was['e'], $s['n'] - $was['n'], $s['h'] - $was['h']);
            }
        }
        usort($shifts, static fn (ShiftView $x, ShiftView $y): int => self::length($y) <=> self::length($x));
        $changed = [];
        foreach ($this->observations->rows($project) as $o) {
            foreach ('vector' === $o->kind ? ['dx', 'dy', 'dz'] : [''] as $component) {
                $x = $before->row($o->id, $component);
                $y = $after->row($o->id, $component);
                $verdict = self::verdict($x, $y);
                if (null !== $verdict) {
                    $changed[] = new ChangedVerdictView(
                        $o->id, '' === $component ? null : $component, $o->kind, $o->from.('' === $o->set ? '' : '/'.$o->set), $o->to,
                        $x['standardized'] ?? null, $y['standardized'] ?? null, $verdict,
                    );
                }
            }
        }

        return new RunsComparedView(
            $earlier, $later, AdjustmentSummary::of($a)->varianceFactor, AdjustmentSummary::of($b)->varianceFactor, $shifts, $changed,
        );
    }

    private function run(Project $project, int $number): Result
    {
        foreach ($this->results->runs($project, Adjuster::SLOT) as $run) {
            if ($run->run === $number) {
                return $run;
            }
        }
        throw new UnusableInput('/run', \sprintf('there is no run %d of this network', $number));
    }

    private static function length(ShiftView $s): float
    {
        return sqrt($s->e ** 2 + $s->n ** 2 + $s->h ** 2);
    }

    /**
     * @param ?array<string, mixed> $before
     * @param ?array<string, mixed> $after
     */
    private static function verdict(?array $before, ?array $after): ?string
    {
        if (null === $before || null === $after) {
            return null === $before && null === $after ? null : (null === $before ? 'new' : 'gone');
        }
        $wasUsed = 'full' === ($before['use'] ?? 'full');
        $isUsed = 'full' === ($after['use'] ?? 'full');
        if ($wasUsed !== $isUsed) {
            return $isUsed ? 'used again' : 'set aside';
        }
        $stood = $before['flagged'] ?? false;
        $stands = $after['flagged'] ?? false;

        return $stood === $stands || !$isUsed ? null : ($stands ? 'stands out' : 'fits now');
    }
}
