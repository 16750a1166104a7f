<?php

declare(strict_types=1);

namespace App\Project;

use App\Account\Membership;
use App\Account\ProjectVoter;
use App\Account\Role;
use App\Job\JobList;
use App\Job\Jobs;
use App\Ledger\Ledger;
use App\Ledger\RecomputeHandler;
use App\Ledger\Results;
use App\Project\Request\CreateRequest;
use App\Project\Request\UnitsRequest;
use App\Project\View\HitView;
use App\Project\View\Overview;
use App\Project\View\ProjectCard;
use App\Project\View\StaleView;
use App\Project\View\UnitsView;
use App\Reference\ProjectReference;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Mensura\Fault\UnusableInput;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

#[Route('/api')]
final class ProjectController
{
    private const MOST_HITS = 40;

    public function __construct(
        private readonly ProjectAccess $access,
        private readonly EntityManagerInterface $entities,
        private readonly Connection $connection,
        private readonly Results $results,
        private readonly Ledger $ledger,
        private readonly ProjectReference $references,
    ) {
    }

    #[Route('/projects', methods: 'GET')]
    public function list(): JsonResponse
    {
        $cards = array_map(static fn (Membership $m): ProjectCard => new ProjectCard($m->project()->id(), $m->project()->name(), $m->role()->value, $m->project()->reference(), $m->project()->heights()), $this->entities->getRepository(Membership::class)->findBy(['user' => $this->access->user()]));

        return new JsonResponse($cards);
    }

    #[Route('/projects', methods: 'POST')]
    public function create(#[MapRequestPayload] CreateRequest $request, ClockInterface $clock): JsonResponse
    {
        $reference = $this->reference($request->reference, $request->heights);
        $project = new Project(trim($request->name), $reference, $request->heights, $clock->now());
        $this->entities->persist($project);
        $this->entities->persist(new Membership($this->access->user(), $project, Role::Owner));
        $this->entities->flush();

        return new JsonResponse(new ProjectCard($project->id(), $project->name(), Role::Owner->value, $project->reference(), $project->heights()), 201);
    }

    #[Route('/projects/{id<\d+>}', methods: 'GET')]
    public function overview(int $id, CourseView $course, JobList $jobs, ProjectVoter $voter): JsonResponse
    {
        $project = $this->access->read($id);
        $current = $this->results->current($project);
        $stale = $this->results->stale($project);
        $role = $voter->roleOf($this->access->user(), $project);
        $units = $project->units();

        return new JsonResponse(new Overview(
            $project->id(), $project->name(), $role->value ?? '', $role?->mayChange() ?? false, $project->reference(),
            $this->references->of($project)->name ?? 'plane local system', $project->heights(), 'geoid' === $project->heights() ? $this->references->geoid($project->id(), $project->geoid())->name : '', $project->revision(),
            new UnitsView((string) $units['length'], (string) $units['angle'], (int) $units['decimals']), $course->of($project, $current, $stale),
            array_map(static fn (string $slot, array $reasons): StaleView => new StaleView($slot, $current[$slot]['label'], $reasons), array_keys($stale), $stale),
            $jobs->recent($project), $this->ledger->lastUndoable($project), $this->ledger->lastRedoable($project),
            (int) $this->connection->fetchOne('SELECT COUNT(*) FROM ledger_entry WHERE project_id = ?', [$id]),
        ));
    }

    #[Route('/projects/{id<\d+>}/units', methods: 'PUT')]
    public function changeUnits(int $id, #[MapRequestPayload] UnitsRequest $request): JsonResponse
    {
        $project = $this->access->change($id);
        $seq = $this->ledger->carryOut($project, $this->access->user()->name(), new ChangeProject('change-units', \sprintf('Shows lengths in %s, angles in %s, %d decimals', $request->length, $request->angle, $request->decimals), ['units' => json_encode((array) $request, \JSON_THROW_ON_ERROR)]));

        return new JsonResponse(['seq' => $seq]);
    }

    #[Route('/projects/{id<\d+>}/recompute', methods: 'POST')]
    public function recompute(int $id, Jobs $jobs): JsonResponse
    {
        $project = $this->access->change($id);

        return new JsonResponse(['job' => $jobs->start($project, $this->access->user(), RecomputeHandler::kind(), 'Recompute what is stale')], 202);
    }

    #[Route('/projects/{id<\d+>}/search', methods: 'GET')]
    public function search(int $id, Request $request): JsonResponse
    {
        $this->access->read($id);
        $like = '%'.addcslashes(trim((string) $request->query->get('q')), '%_\\').'%';
        $hits = [];
        foreach ([
            ["SELECT name, role || ' point' AS detail, name AS key FROM point WHERE project_id = ? AND name LIKE ? ESCAPE '\\' ORDER BY LENGTH(name), name LIMIT 15", 'point', 'network'],
            ["SELECT name, kind AS detail, CAST(id AS TEXT) AS key FROM survey_file WHERE project_id = ? AND name LIKE ? ESCAPE '\\' LIMIT 10", 'file', 'intake'],
            ["SELECT name, 'surface' AS detail, CAST(id AS TEXT) AS key FROM surface WHERE project_id = ? AND name LIKE ? ESCAPE '\\' LIMIT 10", 'surface', 'terrain'],
            ["SELECT from_name || CASE set_name WHEN '' THEN '' ELSE '/' || set_name END || ' → ' || to_name AS name, kind AS detail, CAST(id AS TEXT) AS key FROM observation WHERE project_id = ? AND (from_name || '/' || set_name || ' ' || to_name) LIKE ? ESCAPE '\\' LIMIT 15", 'observation', 'network'],
            ["SELECT label AS name, 'handed over' AS detail, CAST(MAX(id) AS TEXT) AS key FROM result WHERE project_id = ? AND kind = 'export' AND label LIKE ? ESCAPE '\\' GROUP BY slot LIMIT 10", 'report', 'handover'],
        ] as [$sql, $kind, $stage]) {
            foreach ($this->connection->fetchAllAssociative($sql, [$id, $like]) as $row) {
                $hits[] = new HitView($kind, (string) $row['name'], (string) $row['detail'], $stage, (string) $row['key']);
            }
        }

        return new JsonResponse(\array_slice($hits, 0, self::MOST_HITS));
    }

    private function reference(string $reference, string $heights): string
    {
        if (Project::PLANE === $reference) {
            if ('local' !== $heights) {
                throw new UnusableInput('/heights', 'a plane local system has local heights');
            }

            return $reference;
        }
        if ('ellipsoidal' !== $heights) {
            throw new UnusableInput('/heights', 'a new project in a projected system begins with ellipsoidal heights; choose a geoid for it on the Reference stage');
        }

        return $this->references->projected(0, $reference)->code ?? throw new UnusableInput('/reference', 'a new project begins in a system of the registry');
    }
}
