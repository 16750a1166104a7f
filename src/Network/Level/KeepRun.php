<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Ledger\EditedMeanwhile;
use App\Ledger\Journal;
use App\Ledger\LedgerEntryRepository;
use App\Ledger\Operation;
use App\Network\Request\LevelRunRequest;
use App\Project\Project;
use Mensura\Fault\UnusableInput;

/** Keeps a run of levels as it is written, finished or not. */
final readonly class KeepRun implements Operation
{
    private const KINDS = ['back', 'fore', 'intermediate'];

    /** @param ?string $seen version of the run that was edited */
    public function __construct(
        private LevelRunRepository $runs,
        private LedgerEntryRepository $entries,
        private LevelRunRequest $request,
        private ?string $seen,
    ) {
    }

    public function name(): string
    {
        return 'keep-level-run';
    }

    public function title(): string
    {
        return \sprintf('Kept the level run %s, %d sights', $this->request->name, \count($this->request->rows));
    }

    public function detail(): array
    {
        return ['run' => $this->request->name, 'pattern' => $this->request->pattern, 'sights' => \count($this->request->rows)];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $rows = self::rows($this->request->rows);
        $named = $this->runs->named($project, $this->request->name);
        if (null !== $named && $named->id() !== $this->request->id) {
            throw new UnusableInput('/name', \sprintf('there is a run %s already; choose another name', $this->request->name));
        }
        if (null === $this->request->id) {
            $this->runs->add(new LevelRun($project, $this->request->name, $this->request->pattern, $rows));

            return;
        }
        $run = $this->runs->in($project, $this->request->id) ?? throw new UnusableInput('/id', 'this run is not there any more');
        if (null !== $this->seen && (string) $run->version() !== $this->seen) {
            $entry = $run->version() > 0 ? $this->entries->numbered($project, $run->version()) : null;
            throw new EditedMeanwhile(
                'The run '.$run->name, $entry, ['rows' => $run->rows, 'pattern' => $run->pattern],
                (string) $run->version(),
            );
        }
        $run->name = $this->request->name;
        $run->pattern = $this->request->pattern;
        $run->rows = $rows;
    }

    /**
     * @param array<mixed> $sent
     *
     * @return list<array{kind: string, point: string, reading: ?float, distance: ?float}>
     *
     * @throws UnusableInput naming the row
     */
    public static function rows(array $sent): array
    {
        $rows = [];
        foreach (array_values($sent) as $i => $row) {
            $kind = \is_array($row) ? $row['kind'] ?? null : null;
            $point = \is_array($row) ? $row['point'] ?? null : null;
            if (!\is_string($kind) || !\in_array($kind, self::KINDS, true)) {
                throw new UnusableInput("/rows/$i/kind", 'is back, fore or intermediate');
            }
            if (!\is_string($point) || mb_strlen($point) > 60) {
                throw new UnusableInput("/rows/$i/point", 'is a name of up to 60 characters');
            }
            $rows[] = [
                'kind' => $kind, 'point' => $point, 'reading' => self::number($row['reading'] ?? null, "/rows/$i/reading", -100.0, 100.0),
                'distance' => self::number($row['distance'] ?? null, "/rows/$i/distance", 0.001, 10000.0),
            ];
        }

        return $rows;
    }

    private static function number(mixed $value, string $path, float $least, float $most): ?float
    {
        if (null === $value) {
            return null;
        }
        if (!\is_int($value) && !\is_float($value) || $value < $least || $value > $most) {
            throw new UnusableInput($path, \sprintf('is a number from %s to %s, metres', $least, $most));
        }

        return (float) $value;
    }
}
