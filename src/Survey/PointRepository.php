<?php

declare(strict_types=1);

namespace App\Survey;

use App\Ledger\BulkRows;
use App\Ledger\Journal;
use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\ORM\Query;
use Doctrine\Persistence\ManagerRegistry;

/**
 * Points one by one are entities. What reads or writes all of a project is in SQL: two hundred thousand points as
 * entities would take a gigabyte and half a minute.
 *
 * @extends ServiceEntityRepository<Point>
 */
final class PointRepository extends ServiceEntityRepository
{
    private const FLOATS = ['e', 'n', 'h', 'given_e', 'given_n', 'given_h', 'sd_e', 'sd_n', 'sd_h'];
    /** Columns that a change of system moves. */
    private const PLACE = ['e', 'n', 'h', 'given_e', 'given_n', 'given_h', 'known'];
    private const ROW = 'p.id, p.name, p.role, p.source, p.code, p.e, p.n, p.h, p.given_e, p.given_n, p.given_h, p.held, '
        .'p.sd_e, p.sd_n, p.sd_h, p.file_id, f.name AS file, p.line, p.known, p.version, p.measured';
    /** Rows read in one go; no statement stays open while rows are written. */
    private const PAGE = 5000;
    private const NAMES_AT_ONCE = 500;

    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Point::class);
    }

    public function add(Point $point): void
    {
        $this->getEntityManager()->persist($point);
    }

    public function remove(Point $point): void
    {
        $this->getEntityManager()->remove($point);
    }

    public function named(Project $project, string $name): ?Point
    {
        return $this->findOneBy(['project' => $project->id(), 'name' => $name]);
    }

    /**
     * @param list<string> $names
     *
     * @return array<string, Point> those there are, by name
     */
    public function allNamed(Project $project, array $names): array
    {
        $points = [];
        foreach (array_chunk($names, self::NAMES_AT_ONCE) as $chunk) {
            foreach ($this->findBy(['project' => $project->id(), 'name' => $chunk]) as $point) {
                $points[$point->name] = $point;
            }
        }

        return $points;
    }

    /** @return list<Point> */
    public function like(Project $project, string $text, int $most): array
    {
        $query = $this->createQueryBuilder('p')->where("p.project = :p AND p.name LIKE :like ESCAPE '!'")->setMaxResults($most);
        $query->orderBy('LENGTH(p.name)')->addOrderBy('p.name');

        return array_values($query->setParameter(
            'p', $project->id(),
        )->setParameter('like', Like::containing($text))->getQuery()->getResult());
    }

    /**
     * How many are placed, how many of them known only locally, and the mean height of the others.
     *
     * @return array{placed: int, local: int, meanHeight: ?float}
     */
    public function tally(Project $project): array
    {
        $query = $this->createQueryBuilder('p')->where('p.project = :p AND p.e IS NOT NULL')->setParameter('p', $project->id());
        $query->select("COUNT(p.id) AS placed, SUM(CASE WHEN p.known = 'local' THEN 1 ELSE 0 END) AS local");
        $counts = $query->getQuery()->getSingleResult();
        $mean = $query->select('AVG(p.h)')->andWhere("p.known = 'global'")->getQuery()->getSingleScalarResult();

        return [
            'placed' => (int) $counts['placed'], 'local' => (int) $counts['local'],
            'meanHeight' => null === $mean ? null : (float) $mean,
        ];
    }

    /** @return ?array{float, float, float, float} least easting and northing, greatest easting and northing of points known globally */
    public function box(Project $project): ?array
    {
        $query = $this->createQueryBuilder('p')->select('MIN(p.e), MIN(p.n), MAX(p.e), MAX(p.n)');
        $query->where("p.project = :p AND p.known = 'global' AND p.e IS NOT NULL AND p.n IS NOT NULL");
        $box = array_values($query->setParameter('p', $project->id())->getQuery()->getSingleResult(Query::HYDRATE_ARRAY));

        return null === $box[0] ? null : [(float) $box[0], (float) $box[1], (float) $box[2], (float) $box[3]];
    }

    /** Points whose coordinates a change of system would move. */
    public function countMovable(Project $project): int
    {
        return $this->tallied($project, "p.known = 'global' AND (p.e IS NOT NULL OR p.givenE IS NOT NULL)");
    }

    /**
     * What a list of points in the project's system leaves out.
     *
     * @return array{unplaced: int, local: int, flat: int}
     */
    public function leftOut(Project $project): array
    {
        $local = $project->isPlane() ? 0 : $this->tallied($project, "p.e IS NOT NULL AND p.known = 'local'");
        $flat = $this->tallied($project, 'p.e IS NOT NULL AND p.h IS NULL'.($project->isPlane() ? '' : " AND p.known = 'global'"));

        return ['unplaced' => $this->tallied($project, 'p.e IS NULL OR p.n IS NULL'), 'local' => $local, 'flat' => $flat];
    }

    /** @return array<string, int> how many points of each role have a plan position in the project's system */
    public function roles(Project $project): array
    {
        $query = $this->createQueryBuilder('p')->select('p.role AS role, COUNT(p.id) AS n')->where('p.project = :p AND p.e IS NOT NULL');
        if (!$project->isPlane()) {
            $query->andWhere("p.known = 'global'");
        }
        $rows = $query->setParameter('p', $project->id())->groupBy('p.role')->orderBy('p.role')->getQuery()->getArrayResult();

        return array_map(intval(...), array_column($rows, 'n', 'role'));
    }

    /** @return array<string, int> how many points with heights have each code */
    public function codes(Project $project): array
    {
        $query = $this->createQueryBuilder('p')->select('p.code AS code, COUNT(p.id) AS n')->where('p.project = :p AND p.h IS NOT NULL');
        if (!$project->isPlane()) {
            $query->andWhere("p.known = 'global'");
        }
        $rows = $query->setParameter('p', $project->id())->groupBy('p.code')->orderBy('p.code')->getQuery()->getArrayResult();

        return array_map(intval(...), array_column($rows, 'n', 'code'));
    }

    /**
     * Names of the points with a code, in the order they came.
     *
     * @return list<string>
     */
    public function namesCoded(Project $project, string $code): array
    {
        return array_map(
            static fn (Point $p): string => $p->name,
            $this->findBy(['project' => $project->id(), 'code' => $code], ['id' => 'ASC']),
        );
    }

    public function countOf(Project $project, string $role): int
    {
        return $this->count(['project' => $project->id(), 'role' => $role]);
    }

    /** @return array<string, string> which coordinates of control are held, by name */
    public function control(Project $project): array
    {
        $query = $this->createQueryBuilder('p')->select('p.name AS name, p.held AS held')->where('p.project = :p AND p.role = :r');
        $query->setParameter('p', $project->id())->setParameter('r', Point::CONTROL);

        return array_column($query->getQuery()->getArrayResult(), 'held', 'name');
    }

    /** @return array<string, array{file: string, sha256: string, count: int}> where points of a role come from */
    public function origins(Project $project, string $role): array
    {
        $query = $this->createQueryBuilder('p')->select('f.id AS id, f.name AS file, f.sha256 AS sha256, COUNT(p.id) AS count');
        $query->join('p.file', 'f')->where('p.project = :p AND p.role = :r')->groupBy('f.id')->orderBy('f.id');

        return array_column($query->setParameter('p', $project->id())->setParameter('r', $role)->getQuery()->getArrayResult(), null, 'id');
    }

    /**
     * Every point of the project, oldest first. In SQL: all points are read.
     *
     * @return \Generator<PointRow>
     */
    public function rows(Project $project): \Generator
    {
        return $this->read($project, '1');
    }

    /**
     * Some of them, oldest first. In SQL: they come by the thousand.
     *
     * @param list<int> $ids
     *
     * @return \Generator<PointRow>
     */
    public function rowsOf(Project $project, array $ids): \Generator
    {
        sort($ids);
        foreach (array_chunk($ids, self::PAGE) as $chunk) {
            yield from $this->read($project, 'p.id IN ('.implode(',', array_map(intval(...), $chunk)).')');
        }
    }

    /**
     * Points that have a place in the project's system, oldest first; in a projected system those known only locally have
     * none. In SQL: all points are read.
     *
     * @return \Generator<PointRow>
     */
    public function onGrid(Project $project): \Generator
    {
        return $this->read($project, 'p.e IS NOT NULL AND p.n IS NOT NULL'.($project->isPlane() ? '' : " AND p.known = 'global'"));
    }

    /** @return \Generator<PointRow> */
    public function known(Project $project, string $known): \Generator
    {
        return $this->read($project, 'p.known = '.(Point::LOCALLY === $known ? "'local'" : "'global'"));
    }

    /**
     * Hash of what surfaces and hand-overs read of points. In SQL: all points are read.
     *
     * @param string $columns of the table
     */
    public function version(Project $project, string $columns, string $and, string $order): string
    {
        $context = hash_init('sha256');
        $sql = "SELECT $columns FROM point WHERE project_id = ? $and ORDER BY $order";
        foreach ($this->getEntityManager()->getConnection()->iterateNumeric($sql, [$project->id()]) as $row) {
            hash_update($context, json_encode($row, \JSON_THROW_ON_ERROR)."\n");
        }

        return substr(hash_final($context), 0, 32);
    }

    /**
     * Takes the points of a file in. A surveyed place of a control or adjusted mark does not replace it; that of a check point
     * is what was measured of it, beside what is known. In SQL: a file brings points by the hundred thousand.
     *
     * @param list<ImportedPoint> $points in the project's system
     *
     * @throws NameTaken when a name is known in another way than these are
     */
    public function import(Project $project, Journal $journal, SurveyFile $file, string $role, string $known, array $points): void
    {
        $isGiven = \in_array($role, [Point::CONTROL, Point::CHECK], true);
        $wanted = [];
        foreach ($points as $p) {
            $wanted[$p->name] = true;
        }
        $existing = [];
        foreach ($this->read($project, '1') as $row) {
            if (isset($wanted[$row->name])) {
                $existing[$row->name] = $row;
            }
        }
        unset($wanted);
        $connection = $this->getEntityManager()->getConnection();
        $place = ['code', 'file_id', 'line', 'e', 'n', 'h', 'measured'];
        $given = ['role', 'given_e', 'given_n', 'given_h', 'held', 'sd_e', 'sd_n', 'sd_h'];
        $new = new BulkRows($connection, $journal, 'point', [
            'project_id', 'name', 'source', 'known', ...$place, ...($isGiven ? $given : ['role']),
        ], self::FLOATS);
        $moved = new BulkRows($connection, $journal, 'point', [...$place, ...($isGiven ? $given : [])], self::FLOATS);
        $kept = new BulkRows($connection, $journal, 'point', ['code', 'file_id', 'line', ...$given], self::FLOATS);
        foreach ($points as $p) {
            $old = $existing[$p->name] ?? null;
            if (null !== $old && $old->known !== $known) {
                throw new NameTaken($p->line, $p->name, $old->known);
            }
            $source = [$p->code, $file->id(), $p->line];
            $control = $isGiven ? [$role, $p->e, $p->n, $p->h, $p->held, $p->sdE, $p->sdN, $p->sdH] : [];
            if (null === $old) {
                $row = [
                    $project->id(), $p->name, Point::FROM_FILE, $known, ...$source, $p->e, $p->n, $p->h, $p->measuredText(),
                    ...($isGiven ? $control : [$role]),
                ];
                $new->insert($row);
                continue;
            }
            $was = [$old->code, $old->fileId, $old->line];
            $had = [$old->role, $old->givenE, $old->givenN, $old->givenH, $old->held, $old->sdE, $old->sdN, $old->sdH];
            $isMeasured = Point::ADJUSTED === $old->source || Point::CHECK === $role && Point::SURVEYED === $old->role;
            if ($isGiven && $isMeasured) {
                $kept->update($old->id, [...$was, ...$had], [...$source, ...$control]);
            } elseif ($isGiven || Point::FROM_FILE === $old->source && \in_array($old->role, [Point::SURVEYED, Point::CHECK], true)) {
                $before = [...$was, $old->e, $old->n, $old->h, $old->measured, ...($isGiven ? $had : [])];
                $moved->update($old->id, $before, [...$source, $p->e, $p->n, $p->h, $p->measuredText(), ...$control]);
            }
        }
        foreach ([$new, $moved, $kept] as $rows) {
            $rows->finish();
        }
    }

    /**
     * Gives points other coordinates, or another way of being known. In SQL: a change of system moves every point.
     *
     * @param \Closure(PointRow): ?MovedPoint $place null leaves a point as it is
     */
    public function move(Project $project, Journal $journal, \Closure $place): void
    {
        $rows = new BulkRows($this->getEntityManager()->getConnection(), $journal, 'point', self::PLACE, self::FLOATS);
        foreach ($this->rows($project) as $p) {
            $m = $place($p);
            if (null !== $m) {
                $before = [$p->e, $p->n, $p->h, $p->givenE, $p->givenN, $p->givenH, $p->known];
                $rows->update($p->id, $before, [$m->e, $m->n, $m->h, $m->givenE, $m->givenN, $m->givenH, $m->known]);
            }
        }
        $rows->finish();
    }

    /** @return \Generator<PointRow> points of a role */
    public function ofRole(Project $project, string $role): \Generator
    {
        return $this->read($project, \in_array($role, Point::ROLES, true) ? "p.role = '$role'" : '0');
    }

    /** @return \Generator<PointRow> control and adjusted marks: what was only surveyed is left out */
    public function marks(Project $project): \Generator
    {
        return $this->read($project, "p.role <> '".Point::SURVEYED."'");
    }

    private function tallied(Project $project, string $condition): int
    {
        $query = $this->createQueryBuilder('p')->select('COUNT(p.id)')->where('p.project = :p')->andWhere($condition);

        return (int) $query->setParameter('p', $project->id())->getQuery()->getSingleScalarResult();
    }

    /** @return \Generator<PointRow> */
    private function read(Project $project, string $condition): \Generator
    {
        $sql = 'SELECT '.self::ROW.' FROM point p LEFT JOIN survey_file f ON f.id = p.file_id '
            ."WHERE p.project_id = ? AND p.id > ? AND ($condition) ORDER BY p.id LIMIT ".self::PAGE;
        $connection = $this->getEntityManager()->getConnection();
        $last = 0;
        do {
            $page = $connection->fetchAllNumeric($sql, [$project->id(), $last]);
            foreach ($page as $row) {
                yield new PointRow(...$row);
            }
            $last = [] === $page ? 0 : (int) $page[\count($page) - 1][0];
        } while (self::PAGE === \count($page));
    }
}
