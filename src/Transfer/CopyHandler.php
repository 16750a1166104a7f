<?php

declare(strict_types=1);

namespace App\Transfer;

use App\Account\User;
use App\Account\UserRepository;
use App\Job\JobContext;
use App\Job\JobHandler;
use App\Project\Project;
use App\Project\ProjectRepository;
use Psr\Clock\ClockInterface;

/** A second project, the same as the first, for trying things: written as an archive and brought in at once. */
final class CopyHandler implements JobHandler
{
    public function __construct(
        private readonly ArchiveWriter $writer,
        private readonly BringIn $bring,
        private readonly ProjectRepository $projects,
        private readonly UserRepository $users,
        private readonly ClockInterface $clock,
    ) {
    }

    public static function kind(): string
    {
        return 'copy-project';
    }

    public function run(JobContext $context): void
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'archive');
        $half = static fn (float $from): \Closure => static fn (string $stage, float $f) => $context->report($stage, $from + 0.5 * $f);
        try {
            $this->writer->write($context->project, $path, $half(0.0));
            $archive = ProjectArchive::open($path);
            $name = (string) $context->payload['name'];
            $owner = $this->users->find($context->payload['owner']);
            \assert($owner instanceof User);
            $from = $context->project;
            $context->outcome(['name' => $name]);
            $copy = new Project($name, $from->reference(), $from->heights(), $this->clock->now());
            $this->projects->foundWith($copy, $owner, function (Project $copy) use ($archive, $name, $half, $context): void {
                $this->bring->into($copy, $archive, $name, $half(0.5), $context->jobId);
            });
        } finally {
            @unlink($path);
        }
    }
}
