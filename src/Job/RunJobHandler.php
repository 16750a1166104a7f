<?php

declare(strict_types=1);

namespace App\Job;

use App\Account\User;
use App\Project\Project;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Mensura\Fault\UnusableInput;
use Psr\Clock\ClockInterface;
use Psr\Log\LoggerInterface;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;

#[AsMessageHandler]
final class RunJobHandler
{
    /** @var array<string, JobHandler> */
    private array $handlers = [];

    /** @param iterable<JobHandler> $handlers */
    public function __construct(
        private readonly Connection $connection,
        private readonly EntityManagerInterface $entities,
        private readonly ClockInterface $clock,
        private readonly LoggerInterface $logger,
        #[AutowireIterator('app.job_handler')] iterable $handlers,
    ) {
        foreach ($handlers as $handler) {
            $this->handlers[$handler::kind()] = $handler;
        }
    }

    public function __invoke(RunJob $message): void
    {
        $worker = gethostname().':'.getmypid();
        $claimed = $this->connection->executeStatement("UPDATE job SET state = 'running', worker = ?, attempts = attempts + 1, started_at = ? WHERE id = ? AND state = 'queued'", [$worker, $this->now(), $message->jobId]);
        if (0 === $claimed) {
            return; // done, cancelled, or in other hands
        }
        $job = $this->connection->fetchAssociative('SELECT * FROM job WHERE id = ?', [$message->jobId]);
        \assert(false !== $job);
        $this->entities->clear();
        $project = $this->entities->find(Project::class, $job['project_id']);
        $author = $this->entities->find(User::class, $job['author_id']);
        \assert(null !== $project && null !== $author);
        $context = new JobContext($this->connection, $message->jobId, $project, $author->name(), json_decode($job['payload'], true, 64, \JSON_THROW_ON_ERROR));
        try {
            $handler = $this->handlers[$job['kind']] ?? throw new \LogicException('No handler for '.$job['kind']);
            $handler->run($context);
            $this->finish($message->jobId, 'done', null);
        } catch (JobCancelled) {
            $this->finish($message->jobId, 'cancelled', null);
        } catch (UnusableInput $e) {
            $this->finish($message->jobId, 'failed', $e->getMessage());
        } catch (\Throwable $e) {
            $this->logger->error('Job failed', ['job' => $message->jobId, 'exception' => $e]);
            $this->finish($message->jobId, 'failed', 'This is a defect of ours; it is in the log. Nothing was changed.');
        }
    }

    private function finish(string $id, string $state, ?string $error): void
    {
        $this->connection->executeStatement("UPDATE job SET state = ?, error = ?, progress = CASE WHEN ? = 'done' THEN 1 ELSE progress END, finished_at = ? WHERE id = ? AND state = 'running'", [$state, $error, $state, $this->now(), $id]);
    }

    private function now(): string
    {
        return $this->clock->now()->format('Y-m-d H:i:s');
    }
}
