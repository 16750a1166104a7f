<?php

declare(strict_types=1);

namespace App\Tests\Job;

use App\Account\User;
use App\Job\JobCancelled;
use App\Job\JobContext;
use App\Job\JobRepository;
use App\Job\Jobs;
use App\Job\RunJob;
use App\Job\RunJobHandler;
use App\Project\Project;
use App\Tests\ApiTestCase;

/** The life of a job: queued, claimed once, reported, cancelled, failed, taken up again. */
final class JobsTest extends ApiTestCase
{
    /** @param array<string, mixed> $over */
    private function queue(array $over = []): string
    {
        $id = bin2hex(random_bytes(8));
        $this->database()->insert('job', $over + ['id' => $id, 'project_id' => $this->project, 'author_id' => $this->owner()->id(), 'kind' => 'adjust', 'title' => 'Adjust the network', 'payload' => '{}', 'state' => 'queued', 'created_at' => '2031-05-04 09:00:00']);

        return $id;
    }

    private function owner(): User
    {
        return $this->entities()->getRepository(User::class)->findOneBy(['username' => 'owner']) ?? self::fail('no owner');
    }

    /** @return array<string, mixed> */
    private function row(string $id): array
    {
        return $this->database()->fetchAssociative('SELECT * FROM job WHERE id = ?', [$id]) ?: self::fail('no job');
    }

    private function run_(string $id): void
    {
        ($this->service(RunJobHandler::class))(new RunJob($id));
    }

    public function testAJobFailsWithTheReasonOfItsInput(): void
    {
        $id = $this->queue();
        $this->run_($id);
        $view = $this->get("/jobs/$id");
        self::assertSame('failed', $view['state']);
        self::assertStringContainsString('there are no observations yet', $view['error']);
        self::assertNotNull($this->row($id)['finished_at']);
        self::assertSame(0, $this->get('')['ledgerCount'], 'Nothing was changed.');
    }

    public function testAJobOfAnUnknownKindIsADefectAndSaysNoMore(): void
    {
        $id = $this->queue(['kind' => 'juggle']);
        $this->run_($id);
        self::assertSame('This is a defect of ours; it is in the log. Nothing was changed.', $this->get("/jobs/$id")['error']);
    }

    public function testAJobIsClaimedOnce(): void
    {
        foreach (['running', 'done', 'cancelled', 'failed'] as $state) {
            $id = $this->queue(['state' => $state]);
            $this->run_($id);
            self::assertSame([$state, 0], [$this->row($id)['state'], (int) $this->row($id)['attempts']]);
        }
    }

    public function testAQueuedJobIsCancelledAtOnceAndARunningOneAtItsNextReport(): void
    {
        $queued = $this->queue();
        $this->post("/jobs/$queued/cancel");
        self::assertSame('cancelled', $this->get("/jobs/$queued")['state']);

        $running = $this->queue(['state' => 'running', 'worker' => gethostname().':'.getmypid()]);
        $this->post("/jobs/$running/cancel");
        self::assertSame('running', $this->get("/jobs/$running")['state']);
        $project = $this->entities()->find(Project::class, $this->project);
        self::assertNotNull($project);
        $context = new JobContext($this->service(JobRepository::class), $running, $project, 'Owner', []);
        $this->expectException(JobCancelled::class);
        $context->report('iteration 2', 0.5);
    }

    public function testProgressIsSeen(): void
    {
        $id = $this->queue(['state' => 'running', 'worker' => gethostname().':'.getmypid(), 'started_at' => '2031-05-04 09:00:00']);
        $project = $this->entities()->find(Project::class, $this->project);
        self::assertNotNull($project);
        $context = new JobContext($this->service(JobRepository::class), $id, $project, 'Owner', []);
        $context->report('triangulating', 0.25);
        $context->report('too soon after', 0.26);
        $context->outcome(['proposals' => [1, 2]]);
        $view = $this->get("/jobs/$id");
        self::assertSame(['triangulating', 0.25], [$view['stage'], $view['progress']]);
        self::assertSame(['proposals' => [1, 2]], $view['outcome']);
        self::assertContains($id, array_column($this->get('/jobs'), 'id'));
    }

    public function testJobsOfDeadWorkersAreTakenUpAgainAndOthersLeftAlone(): void
    {
        // No process has this number: it lies above the kernel's limit.
        $dead = $this->queue(['state' => 'running', 'worker' => gethostname().':2147483000', 'attempts' => 1]);
        $alive = $this->queue(['state' => 'running', 'worker' => gethostname().':'.getmypid()]);
        $elsewhere = $this->queue(['state' => 'running', 'worker' => 'another-machine:1']);
        self::assertSame(1, $this->service(Jobs::class)->takeUpAgain());
        self::assertContains($this->row($dead)['state'], ['queued', 'failed'], 'Queued again; where jobs run at once it has run by now.');
        self::assertNotSame(gethostname().':2147483000', $this->row($dead)['worker']);
        self::assertSame('running', $this->row($alive)['state']);
        self::assertSame('running', $this->row($elsewhere)['state']);
        self::assertSame(0, $this->service(Jobs::class)->takeUpAgain());
    }

    public function testJobsOfOtherProjectsAreNotSeen(): void
    {
        $id = $this->queue();
        $this->project = $this->post('/api/projects', ['name' => 'Other', 'reference' => 'plane', 'heights' => 'local'], 201)['id'];
        $this->get("/jobs/$id", 404);
        self::assertSame([], $this->get('/jobs'));
        $this->post("/jobs/$id/cancel");
        self::assertSame('queued', $this->row($id)['state']);
    }
}
