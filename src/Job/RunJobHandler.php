<?php

declare(strict_types=1);

namespace App\Job;

use App\Store\StoreFault;
use Doctrine\DBAL\Exception\LockWaitTimeoutException;
use Doctrine\ORM\EntityManagerInterface;
use Mensura\Fault\UnusableInput;
use Psr\Clock\ClockInterface;
use Psr\Log\LoggerInterface;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;

#[AsMessageHandler]
final class RunJobHandler
{
    private const DEFECT = 'This is a defect of ours; it is in the log. ';
    private const TRIES_TO_FINISH = 5;

    /** @var array<string, JobHandler> */
    private array $handlers = [];

    /** @param iterable<JobHandler> $handlers */
    public function __construct(
        private readonly JobRepository $jobs,
        private readonly EntityManagerInterface $entities,
        private readonly ClockInterface $clock,
        private readonly LoggerInterface $logger,
        #[AutowireIterator('app.job_handler')] iterable $handlers,
    ) {
        foreach ($handlers as $handler) {
            $this->handlers[$handler::kind()] = $handler;
        }
    }

    public static function worker(): string
    {
        return gethostname().':'.getmypid();
    }

    public function __invoke(RunJob $message): void
    {
        $now = $this->clock->now();
        if (!$this->jobs->claim($message->jobId, self::worker(), $now, Lease::until($now))) {
            return; // done, cancelled, or in other hands
        }
        $this->entities->clear();
        $job = $this->jobs->fresh($message->jobId);
        \assert(null !== $job);
        $context = new JobContext($this->jobs, $job->id, $job->project, $job->author->name(), $job->payload);
        try {
            $handler = $this->handlers[$job->kind] ?? throw new \LogicException('No handler for '.$job->kind);
            Undisturbed::during(static fn () => $handler->run($context));
            $this->finish($job->id, Job::DONE, null);
        } catch (JobCancelled) {
            $this->finish($job->id, Job::CANCELLED, null);
        } catch (UnusableInput|StoreFault $e) {
            $this->finish($job->id, Job::FAILED, $e->getMessage());
        } catch (PartlyDone $e) {
            $this->finish($job->id, Job::FAILED, ($e->isOurs() ? self::DEFECT : '').$e->getMessage());
            $this->log($job->id, $e->isOurs() ? $e->getPrevious() : null);
        } catch (LockWaitTimeoutException) {
            $this->finish($job->id, Job::FAILED, 'The database was busy for too long; nothing was changed. Try again in a moment.');
        } catch (\Throwable $e) {
            $this->log($job->id, $e);
            $this->finish($job->id, Job::FAILED, self::DEFECT.'Nothing was changed.');
        }
    }

    private function log(string $job, ?\Throwable $e): void
    {
        if (null !== $e) {
            $this->logger->error('Job failed', ['job' => $job, 'exception' => $e]);
        }
    }

    /** A database that is locked just now is waited for: a job that is over must not look as if it ran. */
    private function finish(string $id, string $state, ?string $error): void
    {
        for ($i = 1;; ++$i) {
            try {
                $now = $this->clock->now();
                Job::DONE === $state ? $this->jobs->done($id, $now) : $this->jobs->end($id, $state, $error, $now);

                return;
            } catch (LockWaitTimeoutException $e) {
                if ($i >= self::TRIES_TO_FINISH) {
                    throw $e; // the worker finds it on its next idle moment
                }
            }
        }
    }
}
