<?php

declare(strict_types=1);

namespace App\Job;

use App\Account\User;
use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\ORM\Query;
use Doctrine\ORM\QueryBuilder;
use Doctrine\Persistence\ManagerRegistry;

/**
 * Every step of a job's life is one statement that names the state it leaves, so that of two that try it one succeeds.
 *
 * @extends ServiceEntityRepository<Job>
 */
final class JobRepository extends ServiceEntityRepository
{
    private const SHOWN = 8;
    private const REMEMBERED = 30;

    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Job::class);
    }

    public function add(Job $job): void
    {
        $this->getEntityManager()->persist($job);
        $this->getEntityManager()->flush();
    }

    public function projectNamed(int $id): Project
    {
        return $this->getEntityManager()->getReference(Project::class, $id) ?? throw new \LogicException('No project.');
    }

    public function userNamed(int $id): User
    {
        return $this->getEntityManager()->getReference(User::class, $id) ?? throw new \LogicException('No account.');
    }

    /** As it is in the database now. */
    public function fresh(string $id): ?Job
    {
        $query = $this->createQueryBuilder('j')->where('j.id = :id')->setParameter('id', $id)->getQuery();

        return $query->setHint(Query::HINT_REFRESH, true)->getOneOrNullResult();
    }

    public function ofRequest(int $project, string $requestKey): ?Job
    {
        return $this->findOneBy(['project' => $project, 'requestKey' => $requestKey]);
    }

    /** @return list<Job> those under way and the last few that ended, newest first */
    public function recent(int $project): array
    {
        $query = $this->createQueryBuilder('j')->where('j.project = :p')->setParameter('p', $project)->orderBy('j.id', 'DESC');
        $last = (clone $query)->setMaxResults(self::SHOWN)->getQuery()->setHint(Query::HINT_REFRESH, true)->getResult();
        $open = $query->andWhere('j.state IN (:open)')->setParameter('open', [Job::QUEUED, Job::RUNNING])->getQuery()->getResult();
        $jobs = [];
        foreach ([...$last, ...$open] as $job) {
            $jobs[$job->id] = $job;
        }
        krsort($jobs);

        return array_values($jobs);
    }

    /** @return list<Job> of a kind, newest first */
    public function lastDone(int $project, string $kind): array
    {
        return $this->findBy(['project' => $project, 'kind' => $kind, 'state' => Job::DONE], ['id' => 'DESC'], self::REMEMBERED);
    }

    public function claim(string $id, string $worker, \DateTimeImmutable $now, \DateTimeImmutable $lease): bool
    {
        return 1 === $this->change($id, Job::QUEUED, [
            'state' => Job::RUNNING, 'worker' => $worker, 'startedAt' => $now, 'leaseUntil' => $lease,
        ], 'j.attempts = j.attempts + 1');
    }

    public function report(string $id, string $stage, float $fraction, \DateTimeImmutable $lease): void
    {
        $this->change($id, Job::RUNNING, ['stage' => mb_substr($stage, 0, 120), 'progress' => $fraction, 'leaseUntil' => $lease]);
    }

    public function prolong(string $id, \DateTimeImmutable $lease): void
    {
        $this->change($id, Job::RUNNING, ['leaseUntil' => $lease]);
    }

    public function isCancelRequested(string $id): bool
    {
        $query = $this->createQueryBuilder('j')->select('j.cancelRequested')->where('j.id = :id')->setParameter('id', $id)->getQuery();

        return (bool) ($query->getOneOrNullResult()['cancelRequested'] ?? false);
    }

    /** Marks a running job done; false when it was finished or cancelled elsewhere. */
    public function done(string $id, \DateTimeImmutable $now): bool
    {
        return 1 === $this->change($id, Job::RUNNING, ['state' => Job::DONE, 'progress' => 1.0, 'stage' => '', 'finishedAt' => $now]);
    }

    public function end(string $id, string $state, ?string $error, \DateTimeImmutable $now): void
    {
        $this->change($id, Job::RUNNING, ['state' => $state, 'error' => $error, 'finishedAt' => $now]);
    }

    /** @param array<string, mixed> $outcome */
    public function found(string $id, array $outcome): void
    {
        $job = $this->fresh($id);
        if (null !== $job) {
            $job->outcome = $outcome;
            $this->getEntityManager()->flush();
        }
    }

    public function cancel(int $project, string $id): void
    {
        foreach ([
            Job::QUEUED => ['state' => Job::CANCELLED, 'cancelRequested' => true],
            Job::RUNNING => ['cancelRequested' => true],
        ] as $state => $fields) {
            $this->change($id, $state, $fields, '', $project);
        }
    }

    /** @return list<Job> that a worker holds, or held */
    public function running(): array
    {
        return $this->inState(Job::RUNNING);
    }

    /** @return list<Job> that no worker has taken up since they were last asked for, before $before */
    public function unanswered(\DateTimeImmutable $before): array
    {
        return array_values(array_filter(
            $this->inState(Job::QUEUED), static fn (Job $j): bool => ($j->askedAt ?? $j->createdAt) < $before,
        ));
    }

    /** Lets go of a job whose worker is gone; false when someone else did. */
    public function release(Job $job, string $stage): bool
    {
        return 1 === $this->change(
            $job->id,
            Job::RUNNING,
            ['state' => Job::QUEUED, 'stage' => $stage, 'worker' => null, 'leaseUntil' => null],
        );
    }

    public function asked(string $id, \DateTimeImmutable $now): void
    {
        $this->change($id, Job::QUEUED, ['askedAt' => $now]);
    }

    /** @return list<Job> */
    private function inState(string $state): array
    {
        $query = $this->createQueryBuilder('j')->where('j.state = :s')->setParameter('s', $state)->orderBy('j.id')->getQuery();

        return array_values($query->setHint(Query::HINT_REFRESH, true)->getResult());
    }

    /** @param array<string, mixed> $fields */
    private function change(string $id, string $from, array $fields, string $more = '', ?int $project = null): int
    {
        $query = $this->createQueryBuilder('j')->update()->where('j.id = :id AND j.state = :from')
            ->setParameters(self::parameters($fields));
        $query->setParameter('id', $id)->setParameter('from', $from);
        foreach (array_keys($fields) as $field) {
            $query->set('j.'.$field, ':'.$field);
        }
        if ('' !== $more) {
            [$field, $value] = explode(' = ', $more);
            $query->set($field, $value);
        }
        if (null !== $project) {
            $query->andWhere('j.project = :project')->setParameter('project', $project);
        }

        return self::executed($query);
    }

    private static function executed(QueryBuilder $query): int
    {
        return (int) $query->getQuery()->execute();
    }

    /**
     * @param array<string, mixed> $fields
     *
     * @return \Doctrine\Common\Collections\ArrayCollection<int, Query\Parameter>
     */
    private static function parameters(array $fields): \Doctrine\Common\Collections\ArrayCollection
    {
        $parameters = array_map(
            static fn (string $name, mixed $value): Query\Parameter => new Query\Parameter($name, $value),
            array_keys($fields),
            $fields,
        );

        return new \Doctrine\Common\Collections\ArrayCollection($parameters);
    }
}
