<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Ledger\EditedMeanwhile;
use App\Ledger\Journal;
use App\Ledger\LedgerEntryRepository;
use App\Ledger\Operation;
use App\Network\Request\LevelSettingsRequest;
use App\Project\Project;
use Mensura\Fault\UnusableInput;

/** Changes how the levelling book is worked out, and its typed benchmarks. */
final readonly class ChangeLevelSettings implements Operation
{
    public const NAME = 'change-level-settings';

    /** @param ?string $seen version of the settings that were edited */
    public function __construct(
        private LevelBookSettingsRepository $settings,
        private LedgerEntryRepository $entries,
        private LevelSettingsRequest $request,
        private ?string $seen,
    ) {
    }

    public function name(): string
    {
        return self::NAME;
    }

    public function title(): string
    {
        return 'Changed the settings of the levelling book';
    }

    public function detail(): array
    {
        return (array) $this->request;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $book = $this->settings->of($project);
        if (null !== $this->seen && (string) $book->version() !== $this->seen) {
            $entry = $this->entries->lastOf($project, self::NAME);
            throw new EditedMeanwhile('The levelling book', $entry, $book->settings, (string) $book->version());
        }
        $values = (array) $this->request;
        unset($values['benchmarks']);
        $book->settings = $values;
        $book->benchmarks = self::benchmarks($this->request->benchmarks);
        $this->settings->keep($book);
    }

    /**
     * @param array<mixed> $sent
     *
     * @return list<array{id: string, h: float}>
     */
    private static function benchmarks(array $sent): array
    {
        $list = $seen = [];
        foreach (array_values($sent) as $i => $row) {
            $id = \is_array($row) && \is_string($row['id'] ?? null) ? trim($row['id']) : '';
            $h = \is_array($row) ? $row['h'] ?? null : null;
            if ('' === $id || mb_strlen($id) > 60) {
                throw new UnusableInput("/benchmarks/$i/id", 'is a name of up to 60 characters');
            }
            if (isset($seen["b$id"])) {
                throw new UnusableInput("/benchmarks/$i/id", \sprintf('%s is there twice', $id));
            }
            if (!\is_int($h) && !\is_float($h) || abs((float) $h) > 1e5) {
                throw new UnusableInput("/benchmarks/$i/h", \sprintf('the height of %s is a number of metres', $id));
            }
            $seen["b$id"] = true;
            $list[] = ['id' => $id, 'h' => (float) $h];
        }

        return $list;
    }
}
