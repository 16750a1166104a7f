<?php

declare(strict_types=1);

namespace App\Survey;

use App\Ledger\BulkRows;
use App\Ledger\Journal;
use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/**
 * Observations one by one are entities. What reads or writes all of a project is in SQL, as for points.
 *
 * @extends ServiceEntityRepository<Observation>
 */
final class ObservationRepository extends ServiceEntityRepository
{
    private const IMPORTED = [
        'project_id', 'file_id', 'line', 'kind', 'set_name', 'from_name', 'to_name', 'v1', 'v2', 'v3', 'hi', 'ht', 'covariance',
        'back_name', 'length', 'face', 'round', 'observed_at', 'weather',
    ];
    private const FLOATS = ['v1', 'v2', 'v3', 'hi', 'ht', 'length'];
    private const VERSIONED = 'kind, set_name, from_name, to_name, v1, v2, v3, sd, hi, ht, covariance, used, back_name';
    private const ROW = 'o.id, o.kind, o.set_name, o.from_name, o.to_name, o.v1, o.v2, o.v3, o.sd, o.hi, o.ht, o.covariance, o.back_name, '
        .'o.used, o.reason, o.aside_by, o.aside_at, o.file_id, f.name AS file, o.line, o.face, o.round, o.observed_at, o.length, o.weather';
    private const IDS_AT_ONCE = 500;

    public function __construct(ManagerRegistry $registry, private readonly CorrectionRepository $corrections)
    {
        parent::__construct($registry, Observation::class);
    }

    public function in(Project $project, int $id): ?Observation
    {
        return $this->findOneBy(['project' => $project->id(), 'id' => $id]);
    }

    /**
     * @param list<int> $ids
     *
     * @return array<int, Observation> those of them in the project
     */
    public function numbered(Project $project, array $ids): array
    {
        $found = [];
        foreach (array_chunk($ids, self::IDS_AT_ONCE) as $chunk) {
            foreach ($this->findBy(['project' => $project->id(), 'id' => $chunk]) as $observation) {
                $found[$observation->id()] = $observation;
            }
        }

        return $found;
    }

    public function add(Observation $observation): void
    {
        $this->getEntityManager()->persist($observation);
    }

    /** Takes out what the levelling book handed over before. */
    public function removeLevelled(Project $project, string $set): void
    {
        foreach ($this->findBy(['project' => $project->id(), 'kind' => 'height-difference', 'file' => null]) as $observation) {
            if (str_starts_with($observation->setName, $set)) {
                $this->getEntityManager()->remove($observation);
            }
        }
    }

    /**
     * Takes out the vectors that processing handed over before, of a session between two marks, whichever way they run.
     */
    public function removeVectors(Project $project, string $session, string $one, string $other): void
    {
        $where = ['project' => $project->id(), 'kind' => 'vector', 'file' => null, 'setName' => $session];
        foreach ([['fromName' => $one, 'toName' => $other], ['fromName' => $other, 'toName' => $one]] as $ends) {
            foreach ($this->findBy($where + $ends) as $observation) {
                $this->getEntityManager()->remove($observation);
            }
        }
    }

    public function between(Project $project, string $kind, string $from, string $to): ?Observation
    {
        return $this->findOneBy(['project' => $project->id(), 'kind' => $kind, 'fromName' => $from, 'toName' => $to], ['id' => 'ASC']);
    }

    /** @return list<Observation> that begin, end or look back at a point */
    public function touching(Project $project, string $name): array
    {
        $query = $this->createQueryBuilder('o')
            ->where('o.project = :p AND (o.fromName = :n OR o.toName = :n OR o.backName = :n)')->orderBy('o.id');

        return array_values($query->setParameter('p', $project->id())->setParameter('n', $name)->getQuery()->getResult());
    }

    /** @return list<Observation> */
    public function like(Project $project, string $text, int $most): array
    {
        $query = $this->createQueryBuilder('o')->where(
            "o.project = :p AND CONCAT(o.fromName, '/', o.setName, ' ', o.toName) LIKE :like ESCAPE '!'",
        );
        $query->setParameter('p', $project->id())->setParameter('like', Like::containing($text))->orderBy('o.id')->setMaxResults($most);

        return array_values($query->getQuery()->getResult());
    }

    public function countOf(Project $project): int
    {
        return $this->count(['project' => $project->id()]);
    }

    /** @return array<string, array{file: string, sha256: string, count: int}> */
    public function origins(Project $project): array
    {
        $query = $this->createQueryBuilder('o')->select('f.id AS id, f.name AS file, f.sha256 AS sha256, COUNT(o.id) AS count');
        $query->join('o.file', 'f')->where('o.project = :p')->groupBy('f.id')->orderBy('f.id');

        return array_column($query->setParameter('p', $project->id())->getQuery()->getArrayResult(), null, 'id');
    }

    /** @return list<array{reason: string, by: ?string, count: int}> what is set aside */
    public function asides(Project $project): array
    {
        $query = $this->createQueryBuilder('o')->select('o.reason AS reason, o.asideBy AS by, COUNT(o.id) AS count');
        $query->where('o.project = :p AND o.used < :all')->groupBy('o.reason, o.asideBy');

        return array_values($query->setParameter('p', $project->id())->setParameter('all', Observation::ALL)->getQuery()->getArrayResult());
    }

    /**
     * Every observation of the project with its corrections, oldest first. In SQL: all are read.
     *
     * @return \Generator<ObservationRow>
     */
    public function rows(Project $project): \Generator
    {
        $changes = $this->changes($project);
        $sql = 'SELECT '.self::ROW.' FROM observation o LEFT JOIN survey_file f ON f.id = o.file_id WHERE o.project_id = ? ORDER BY o.id';
        foreach ($this->getEntityManager()->getConnection()->iterateNumeric($sql, [$project->id()]) as $row) {
            $observation = new ObservationRow(...$row);
            yield isset($changes[$observation->id]) ? $observation->corrected($changes[$observation->id]) : $observation;
        }
    }

    /** @return array<int, list<array{field: string, add?: float, to?: string}>> corrections by observation */
    private function changes(Project $project): array
    {
        $changes = [];
        foreach ($this->corrections->all($project) as $correction) {
            foreach ($correction->changes as $change) {
                $id = $change['id'];
                unset($change['id']);
                $changes[$id][] = $change;
            }
        }

        return $changes;
    }

    /** Hash of what the adjustment reads. In SQL: all observations are read. */
    public function version(Project $project): string
    {
        $context = hash_init('sha256');
        $sql = 'SELECT '.self::VERSIONED.' FROM observation WHERE project_id = ? ORDER BY id';
        foreach ($this->getEntityManager()->getConnection()->iterateNumeric($sql, [$project->id()]) as $row) {
            hash_update($context, json_encode($row, \JSON_THROW_ON_ERROR)."\n");
        }
        if ([] !== $changes = $this->changes($project)) {
            hash_update($context, json_encode($changes, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION));
        }

        return substr(hash_final($context), 0, 32);
    }

    /**
     * Takes the observations of a file in. In SQL: a file brings them by the ten thousand.
     *
     * @param iterable<ImportedObservation> $observations
     */
    public function import(Project $project, Journal $journal, SurveyFile $file, iterable $observations): void
    {
        $rows = new BulkRows($this->getEntityManager()->getConnection(), $journal, 'observation', self::IMPORTED, self::FLOATS);
        foreach ($observations as $o) {
            $rows->insert([
                $project->id(), $file->id(), $o->line, $o->kind, $o->set, $o->from, $o->to, $o->v1, $o->v2, $o->v3, $o->hi, $o->ht,
                null === $o->covariance ? null : json_encode($o->covariance, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION),
                $o->back, $o->length, $o->face, $o->round, $o->observedAt?->format('Y-m-d H:i:s'), $o->weather,
            ]);
        }
        $rows->finish();
    }
}
