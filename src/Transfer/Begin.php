<?php

declare(strict_types=1);

namespace App\Transfer;

use App\Account\User;
use App\Job\Jobs;
use App\Project\Project;
use App\Project\ProjectRepository;
use App\Store\FileStore;
use App\Transfer\View\BroughtProject;
use Mensura\Fault\UnusableInput;
use Psr\Clock\ClockInterface;

/** Begins a project of an archive: compared with its hashes first, filled by the worker. */
final class Begin
{
    public function __construct(
        private readonly ProjectRepository $projects, private readonly Jobs $jobs, private readonly FileStore $store,
        private readonly ClockInterface $clock,
    ) {
    }

    /**
     * @param ?string $key what the page called its request
     *
     * @throws UnusableInput when it is no archive, or damaged; no project is begun then
     */
    public function of(string $path, User $owner, ?string $key = null): BroughtProject
    {
        $name = ProjectArchive::open($path)->name();
        $aside = (string) tempnam(sys_get_temp_dir(), 'archive');
        copy($path, $aside);
        $payload = ['file' => $this->store->take($aside)];
        $project = new Project($name, Project::PLANE, 'local', $this->clock->now());
        $this->projects->found($project, $owner);
        $job = $this->jobs->start($project, $owner, BringHandler::kind(), 'Bring the project in', $payload, $key);

        return new BroughtProject($project->id(), $name, $job);
    }
}
