<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Project\Project;
use App\Survey\FollowsFile;
use App\Survey\FollowsRename;
use App\Survey\Like;
use App\Survey\SurveyFile;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\ORM\Query;
use Doctrine\Persistence\ManagerRegistry;
use Mensura\Exchange\Delimited\FileKind;

/** @extends ServiceEntityRepository<Occupation> */
final class OccupationRepository extends ServiceEntityRepository implements FollowsFile, FollowsRename
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Occupation::class);
    }

    public function accepted(Project $project, SurveyFile $file): void
    {
        if (FileKind::Occupation->value === $file->kind()) {
            $occupation = new Occupation($project, $file, mb_substr(Recorded::in($file)->marker, 0, 60));
            $occupation->moves = Recorded::in($file)->moves || $this->isNamedByFeatures($project, $file->name());
            $this->getEntityManager()->persist($occupation);
        }
        if (FileKind::RoverFeatures->value === $file->kind()) {
            foreach ($this->of($project) as $occupation) {
                if (self::isFile($occupation->file->name(), (string) ($file->mapping()['rinex'] ?? ''))) {
                    $occupation->moves = true; // it walked from feature to feature
                }
            }
        }
    }

    private function isNamedByFeatures(Project $project, string $name): bool
    {
        foreach ($this->getEntityManager()->getRepository(SurveyFile::class)->findBy(
            ['project' => $project->id(), 'kind' => FileKind::RoverFeatures->value],
        ) as $f) {
            if (self::isFile($name, (string) ($f->mapping()['rinex'] ?? ''))) {
                return true;
            }
        }

        return false;
    }

    /** A file by the name that features give it; it may be packed, or lie in a folder. */
    public static function isFile(string $name, string $called): bool
    {
        return '' !== $called && \in_array(basename($name), [$called, $called.'.gz'], true);
    }

    public function renamed(Project $project, string $from, string $to): void
    {
        foreach ($this->findBy(['project' => $project->id(), 'marker' => $from]) as $occupation) {
            $occupation->marker = $to;
        }
    }

    public function in(Project $project, int $id): ?Occupation
    {
        return $this->findOneBy(['project' => $project->id(), 'id' => $id]);
    }

    /** @return list<Occupation> oldest first */
    public function of(Project $project): array
    {
        $query = $this->createQueryBuilder('o')->select('o, f')->join('o.file', 'f')->where('o.project = :p')->orderBy('o.id');

        return array_values($query->setParameter('p', $project->id())->getQuery()->setHint(Query::HINT_REFRESH, true)->getResult());
    }

    /** @return list<Occupation> */
    public function like(Project $project, string $text, int $most): array
    {
        $query = $this->createQueryBuilder('o')->where("o.project = :p AND o.marker LIKE :like ESCAPE '!'")
            ->orderBy('o.id')->setMaxResults($most);

        return array_values(
            $query->setParameter('p', $project->id())->setParameter('like', Like::containing($text))->getQuery()->getResult(),
        );
    }
}
