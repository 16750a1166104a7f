<?php

declare(strict_types=1);

namespace App\Intake;

use App\Account\User;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Survey\FileIntake;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;

final class TakesFiles implements FileIntake
{
    public function __construct(
        private readonly IntakeOperations $operations,
        private readonly SurveyFileRepository $files,
        private readonly Ledger $ledger,
    ) {
    }

    public function take(Project $project, User $author, string $name, string $bytes): int
    {
        $receive = $this->operations->receive($name, $bytes, $author);
        $there = $this->files->newestOf($project, $receive->sha256);
        if (null !== $there && SurveyFile::ACCEPTED === $there->state()) {
            return $there->id();
        }
        $this->ledger->carryOut($project, $author->name(), $receive);
        $this->ledger->carryOut($project, $author->name(), $this->operations->accept($receive->id(), false));

        return $receive->id();
    }
}
