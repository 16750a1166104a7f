<?php

declare(strict_types=1);

namespace App\Network\Report;

use App\Network\Level\LevelDesk;
use App\Network\Level\LevelRunRepository;
use App\Network\Level\LevelWords;
use App\Project\Project;
use App\Project\Shown;
use Mensura\Fault\UnusableInput;

/** The level runs of a project as the adjustment report tells them. */
final readonly class LevelRuns
{
    public function __construct(private LevelRunRepository $runs, private LevelDesk $desk)
    {
    }

    /**
     * @return ?array{
     *     sections: list<array{cells: list<string>, fails: bool}>, loops: list<array{words: string, fails: bool}>,
     *     warnings: list<string>,
     * } null without runs; a book that cannot be worked out says so among the warnings
     */
    public function of(Project $project, Shown $as): ?array
    {
        if ([] === $this->runs->all($project)) {
            return null;
        }
        try {
            $book = $this->desk->work($project);
        } catch (UnusableInput $e) {
            return ['sections' => [], 'loops' => [], 'warnings' => ['The levelling book is not finished: '.$e->reason.'.']];
        }

        return [
            'sections' => LevelWords::sections($book, $as), 'loops' => LevelWords::loops($book, $as),
            'warnings' => array_values($book->warnings),
        ];
    }
}
