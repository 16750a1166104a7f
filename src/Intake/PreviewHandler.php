<?php

declare(strict_types=1);

namespace App\Intake;

use App\Job\JobContext;
use App\Job\JobHandler;
use App\Job\JobRepository;
use App\Project\Project;
use App\Store\FileStore;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Fault\UnusableInput;

/** Reads a file too large for a page to wait for; the preview is kept as long as nothing changes in the project. */
final class PreviewHandler implements JobHandler
{
    public function __construct(
        private readonly SurveyFileRepository $files,
        private readonly Preview $preview,
        private readonly FileStore $store,
        private readonly JobRepository $jobs,
    ) {
    }

    public static function kind(): string
    {
        return 'preview-file';
    }

    public function run(JobContext $context): void
    {
        $context->report('reading', 0.1);
        $id = (int) $context->payload['file'];
        $file = $this->files->in($context->project, $id) ?? throw new UnusableInput('', 'the file was discarded meanwhile');
        $revision = $context->project->revision();
        $preview = $this->store->putJson(['preview' => $this->preview->of($file)]);
        $context->outcome(['file' => $id, 'revision' => $revision, 'preview' => $preview]);
    }

    /** @return ?array<mixed> as it was worked out at this revision of the project; null when it was not */
    public function kept(Project $project, SurveyFile $file): ?array
    {
        foreach ($this->jobs->lastDone($project->id(), self::kind()) as $job) {
            $o = $job->outcome ?? [];
            if (($o['file'] ?? null) === $file->id() && ($o['revision'] ?? null) === $project->revision()) {
                return $this->store->getJson((string) $o['preview'])['preview'];
            }
        }

        return null;
    }
}
