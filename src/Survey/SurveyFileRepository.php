<?php

declare(strict_types=1);

namespace App\Survey;

use App\Account\User;
use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\ORM\Query;
use Doctrine\Persistence\ManagerRegistry;
use Mensura\Fault\UnusableInput;

/** @extends ServiceEntityRepository<SurveyFile> */
final class SurveyFileRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, SurveyFile::class);
    }

    public function add(SurveyFile $file): void
    {
        $this->getEntityManager()->persist($file);
    }

    public function remove(SurveyFile $file): void
    {
        $this->getEntityManager()->remove($file);
    }

    public function member(int $id): User
    {
        return $this->getEntityManager()->find(User::class, $id) ?? throw new \LogicException('No account.');
    }

    public function in(Project $project, int $id): ?SurveyFile
    {
        return $this->findOneBy(['project' => $project->id(), 'id' => $id]);
    }

    /** @throws UnusableInput when it is not there, or is accepted already */
    public function waiting(Project $project, int $id, string $otherwise): SurveyFile
    {
        $file = $this->in($project, $id) ?? throw new UnusableInput('', 'the file is not there any more');
        if (!$file->isWaiting()) {
            throw new UnusableInput($file->name(), $otherwise);
        }

        return $file;
    }

    /** @return list<SurveyFile> oldest first */
    public function of(Project $project): array
    {
        $query = $this->createQueryBuilder('f')->select('f, a')->join('f.author', 'a')->where('f.project = :p')->orderBy('f.id');

        return array_values($query->setParameter('p', $project->id())->getQuery()->setHint(Query::HINT_REFRESH, true)->getResult());
    }

    /** The file with these bytes that came last. */
    public function newestOf(Project $project, string $sha256): ?SurveyFile
    {
        return $this->findOneBy(['project' => $project->id(), 'sha256' => $sha256], ['id' => 'DESC']);
    }

    /** Another accepted file of the project with the same bytes. */
    public function twin(SurveyFile $file): ?SurveyFile
    {
        $query = $this->createQueryBuilder('f')
            ->where('f.project = :p AND f.sha256 = :s AND f.id <> :id AND (f.state = :a OR f.id < :id)')
            ->orderBy('f.state')->setMaxResults(1);
        $query->setParameters(new \Doctrine\Common\Collections\ArrayCollection([
            new Query\Parameter('p', $file->project()->id()), new Query\Parameter('s', $file->sha256()),
            new Query\Parameter('id', $file->id()),
            new Query\Parameter('a', SurveyFile::ACCEPTED),
        ]));

        return $query->getQuery()->getOneOrNullResult();
    }

    /** @return array<string, int> how many by state */
    public function counts(Project $project): array
    {
        $query = $this->createQueryBuilder('f')->select('f.state AS state, COUNT(f.id) AS n')->where('f.project = :p')->groupBy('f.state');

        return array_map(intval(...), array_column($query->setParameter('p', $project->id())->getQuery()->getArrayResult(), 'n', 'state'));
    }

    /** @return list<SurveyFile> */
    public function named(Project $project, string $like, int $most): array
    {
        $query = $this->createQueryBuilder('f')->where("f.project = :p AND f.name LIKE :like ESCAPE '!'")
            ->orderBy('f.id')->setMaxResults($most);

        return array_values($query->setParameter(
            'p', $project->id(),
        )->setParameter('like', Like::containing($like))->getQuery()->getResult());
    }
}
