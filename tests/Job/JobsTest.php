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
use App\Job\Undisturbed;
use App\Job\Watch;
use App\Network\Adjuster;
use App\Project\Project;
use App\Tests\ApiTestCase;
use Symfony\Component\Clock\MockClock;

/** The life of a job: queued, claimed once, reported, cancelled, failed, taken up again. */
final class JobsTest extends ApiTestCase
{
    /** @param array<string, mixed> $over */
    private function queue(array $over = []): string
    {
        $id = bin2hex(random_bytes(8));
        $this->database()->insert('job', $over + [
            'id' => $id, 'project_id' => $this->project, 'author_id' => $this->owner()->id(), 'kind' => 'adjust',
            'title' => 'Adjust the network', 'payload' => '{}', 'state' => 'queued',
            'created_at' => '2031-05-04 09:00:00',
        ]);

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

    public function testAJobWhoseLeaseHasRunOutIsTakenUpAgainWhereverItRan(): void
    {
        $lost = $this->queue([
            'state' => 'running', 'worker' => 'another-machine:1', 'lease_until' => '2001-01-01 00:00:00',
            'attempts' => 1,
        ]);
        $held = $this->queue([
            'state' => 'running', 'worker' => 'another-machine:2', 'lease_until' => '2091-01-01 00:00:00',
            'attempts' => 1,
        ]);
        self::assertSame(1, $this->service(Jobs::class)->takeUpAgain());
        self::assertSame(2, (int) $this->row($lost)['attempts'], 'Where jobs run at once it has run again by now.');
        self::assertSame(['running', 1], [$this->row($held)['state'], (int) $this->row($held)['attempts']]);
    }

    public function testAJobThatEndsItsWorkerThreeTimesIsGivenUpAndSaysWhatToDo(): void
    {
        $id = $this->queue([
            'state' => 'running', 'worker' => gethostname().':2147483000', 'attempts' => Jobs::MOST_ATTEMPTS,
            'stage' => 'contours',
        ]);
        self::assertSame(0, $this->service(Jobs::class)->takeUpAgain());
        $view = $this->get("/jobs/$id");
        self::assertSame('failed', $view['state']);
        self::assertStringContainsString('The worker ended 3 times while doing this (contours)', $view['error']);
        self::assertStringContainsString('fewer points, a larger contour interval', $view['error']);
    }

    public function testAJobLeftBehindByAWorkerThatIsIdleNowIsTakenUpAgain(): void
    {
        // Its process lives and its lease holds, but the worker itself says that it has nothing to do.
        $id = $this->queue([
            'state' => 'running', 'worker' => RunJobHandler::worker(), 'lease_until' => '2091-01-01 00:00:00',
            'attempts' => 1,
        ]);
        self::assertSame(0, $this->service(Jobs::class)->takeUpAgain());
        self::assertSame(1, $this->service(Jobs::class)->takeUpAgain(RunJobHandler::worker()));
        self::assertSame(2, (int) $this->row($id)['attempts']);
    }

    /** Killed between delivery and claim: the message is gone, the job waits. */
    public function testAJobNoOneAnsweredForIsAskedForAgain(): void
    {
        $old = $this->queue(['asked_at' => '2031-05-04 09:00:00', 'created_at' => '2001-05-04 09:00:00']);
        $this->database()->executeStatement("UPDATE job SET asked_at = '2001-05-04 09:00:00' WHERE id = ?", [$old]);
        $fresh = $this->queue(['created_at' => '2091-05-04 09:00:00']);
        $this->service(Jobs::class)->takeUpAgain('somewhere:1');
        self::assertSame(1, (int) $this->row($old)['attempts']);
        self::assertSame(0, (int) $this->row($fresh)['attempts'], 'Its message may still be on the way.');
    }

    public function testTheWatchProlongsTheLeaseOfWorkThatDoesNotReport(): void
    {
        $old = '2001-01-01 00:00:00';
        $here = ['state' => 'running', 'worker' => RunJobHandler::worker(), 'started_at' => gmdate('Y-m-d H:i:s'), 'lease_until' => $old];
        $id = $this->queue($here);
        $elsewhere = $this->queue(['worker' => 'another-machine:1'] + $here);
        $this->service(Watch::class)->look();
        self::assertGreaterThan(gmdate('Y-m-d H:i:s'), $this->row($id)['lease_until']);
        self::assertSame($old, $this->row($elsewhere)['lease_until'], 'It says nothing of the workers of others.');
    }

    /** This process is no worker of ours, so that it is not ended with them; what is cancelled and goes on, or goes on for hours, is. */
    public function testTheWatchEndsWhatDoesNotEndByItself(): void
    {
        $here = ['state' => 'running', 'worker' => RunJobHandler::worker(), 'started_at' => gmdate('Y-m-d H:i:s')];
        $cancelled = $this->queue(['cancel_requested' => 1] + $here);
        $long = $this->queue(['started_at' => gmdate('Y-m-d H:i:s', time() - 4000)] + $here);
        $watch = new Watch($this->service(JobRepository::class), $this->entities(), $clock = new MockClock());
        $watch->look();
        self::assertSame(['running', 'failed'], [$this->row($cancelled)['state'], $this->row($long)['state']]);
        self::assertStringContainsString('longer than an hour', $this->row($long)['error']);
        $clock->sleep(9);
        $watch->look();
        self::assertSame('running', $this->row($cancelled)['state'], 'It may stop by itself yet.');
        $clock->sleep(2);
        $watch->look();
        self::assertSame('cancelled', $this->row($cancelled)['state']);
    }

    /** A handler that ran in the middle of compiled code made it go on with wrong numbers. */
    public function testNoSignalInterruptsWork(): void
    {
        $seen = [];
        $async = pcntl_async_signals(true);
        $handler = pcntl_signal_get_handler(\SIGUSR1);
        pcntl_signal(\SIGUSR1, static function () use (&$seen): void {
            $seen[] = 'signal';
        });
        try {
            Undisturbed::during(static function () use (&$seen): void {
                posix_kill((int) getmypid(), \SIGUSR1);
                for ($i = 0; $i < 1000; ++$i) {
                    $seen[0] = 'work';
                }
                $seen[] = 'work done';
            });
            self::assertSame(['work', 'work done', 'signal'], $seen);
            self::assertTrue(pcntl_async_signals());
        } finally {
            pcntl_signal(\SIGUSR1, $handler);
            pcntl_async_signals($async);
        }
    }

    /** The result and the job's end are one transaction, so work that is done twice is kept once. */
    public function testAResultIsKeptOnceHoweverOftenItsJobIsDone(): void
    {
        $this->acceptDemoFiles();
        $id = $this->queue();
        $this->run_($id);
        self::assertSame('done', $this->row($id)['state']);
        $project = $this->entities()->find(Project::class, $this->project) ?? self::fail('no project');
        // As a worker would that was thought dead and comes to its end after all.
        $this->service(Adjuster::class)->run($project, 'Owner', null, $id);
        self::assertCount(1, $this->get('/network')['runs']);
    }

    /** Some of it was stored before it failed; the page must not say that nothing was changed. */
    public function testARecomputationThatFailsHalfWaySaysWhatWasDone(): void
    {
        $this->acceptDemoFiles();
        $this->job('/network/adjust');
        $this->post('/network/accept');
        $line = ['role' => 'breakline', 'name' => 'edge', 'points' => ['KT01', 'KT04'], 'vertices' => []];
        $form = ['name' => 'Pit', 'roles' => ['surveyed'], 'lines' => [$line], 'interval' => 1.0];
        $surface = $this->post('/terrain/surfaces', $form, 202)['surface'];
        $this->call('PUT', '/control', ['point' => 'KT01', 'e' => 493120.5, 'n' => 6028061.2, 'h' => 236.4, 'held' => 'enh'], 200);
        // Deleted behind the ledger's back, as a defect would: the line's point is gone when its surface is made again.
        $this->database()->executeStatement("UPDATE surface SET definition = REPLACE(definition, 'KT04', 'GONE') WHERE id = ?", [$surface]);
        $job = $this->job('/recompute');
        self::assertSame('failed', $job['state']);
        self::assertStringNotContainsString('Nothing was changed', $job['error']);
        self::assertStringContainsString('GONE, which is not a point', $job['error']);
        self::assertStringContainsString('Done before: Network adjustment, Accepted coordinates.', $job['error']);
        self::assertCount(2, $this->get('/network')['runs']);
    }

    public function testContoursTooDenseToBeDrawnAreRefusedBeforehandWithTheIntervalThatWouldDo(): void
    {
        $this->acceptDemoFiles();
        $this->accept(
            'tall.csv',
            'point,easting [m],northing [m],ellipsoidal height '
                ."[m],code\nA,493612,6028050,0,T\nB,493622,6028050,90,T\nC,493622,6028060,45,T\n",
        );
        $form = ['name' => 'Dense', 'roles' => ['surveyed'], 'codes' => ['T'], 'interval' => 0.001];
        $job = $this->get('/jobs/'.$this->post('/terrain/surfaces', $form, 202)['job']);
        self::assertSame('failed', $job['state']);
        self::assertStringContainsString('are 90000 levels; at most 20000 are drawn, so choose 0.005 m or more', $job['error']);
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
