<?php

declare(strict_types=1);

namespace App\Network;

use App\Job\Jobs;
use App\Ledger\Ledger;
use App\Ledger\Operation;
use App\Ledger\Results;
use App\Network\Request\ControlRequest;
use App\Network\Request\RenameRequest;
use App\Network\Request\ScreenRequest;
use App\Network\Request\SettingsRequest;
use App\Network\Request\SetUseRequest;
use App\Network\View\PointsView;
use App\Network\View\PointView;
use App\Project\ProjectAccess;
use App\Store\FileStore;
use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

#[Route('/api/projects/{id<\d+>}')]
final class NetworkController
{
    public function __construct(
        private readonly ProjectAccess $access,
        private readonly Connection $connection,
        private readonly Ledger $ledger,
        private readonly Jobs $jobs,
    ) {
    }

    #[Route('/points', methods: 'GET')]
    public function points(int $id): JsonResponse
    {
        $project = $this->access->read($id);
        $views = [];
        $number = static fn (mixed $v): ?float => null === $v ? null : (float) $v;
        foreach ($this->connection->iterateAssociative('SELECT p.*, f.name AS file FROM point p LEFT JOIN survey_file f ON f.id = p.file_id WHERE p.project_id = ? ORDER BY p.id', [$project->id()]) as $p) {
            $views[] = new PointView((int) $p['id'], (string) $p['name'], $p['role'], $p['source'], $p['code'], $number($p['e']), $number($p['n']), $number($p['h']), $number($p['given_e']), $number($p['given_n']), $number($p['given_h']), $p['held'], $number($p['sd_e']), $number($p['sd_n']), $number($p['sd_h']), $p['file'], null === $p['line'] ? null : (int) $p['line'], $p['known']);
        }

        return new JsonResponse(new PointsView($views));
    }

    #[Route('/network', methods: 'GET')]
    public function network(int $id, NetworkReport $report): JsonResponse
    {
        return new JsonResponse($report->of($this->access->read($id)));
    }

    #[Route('/network/adjust', methods: 'POST')]
    public function adjust(int $id): JsonResponse
    {
        $project = $this->access->change($id);

        return new JsonResponse(['job' => $this->jobs->start($project, $this->access->user(), AdjustHandler::kind(), 'Adjust the network')], 202);
    }

    #[Route('/network/screen', methods: 'POST')]
    public function screen(int $id, #[MapRequestPayload] ScreenRequest $request): JsonResponse
    {
        $project = $this->access->change($id);

        return new JsonResponse(['job' => $this->jobs->start($project, $this->access->user(), ScreenHandler::kind(), 'Screening', ['limit' => $request->limit])], 202);
    }

    #[Route('/network/use', methods: 'POST')]
    public function setUse(int $id, #[MapRequestPayload] SetUseRequest $request): JsonResponse
    {
        $rows = array_map(static fn (array $r): array => ['id' => (int) ($r['id'] ?? 0), 'component' => \is_string($r['component'] ?? null) ? $r['component'] : null], $request->rows);

        return $this->carryOut($id, new SetUse($this->connection, $rows, $request->aside, $request->reason));
    }

    #[Route('/network/settings', methods: 'PUT')]
    public function settings(int $id, #[MapRequestPayload] SettingsRequest $request): JsonResponse
    {
        return $this->carryOut($id, new ChangeSettings((array) $request));
    }

    #[Route('/network/accept', methods: 'POST')]
    public function accept(int $id, Results $results, FileStore $store): JsonResponse
    {
        return $this->carryOut($id, new AcceptCoordinates($this->connection, $results, $store));
    }

    #[Route('/control', methods: 'PUT')]
    public function control(int $id, #[MapRequestPayload] ControlRequest $r): JsonResponse
    {
        return $this->carryOut($id, new EditControl($this->connection, $r->point, ['e' => $r->e, 'n' => $r->n, 'h' => $r->h, 'held' => $r->held, 'sdE' => $r->sdE, 'sdN' => $r->sdN, 'sdH' => $r->sdH]));
    }

    #[Route('/points/rename', methods: 'POST')]
    public function rename(int $id, #[MapRequestPayload] RenameRequest $request): JsonResponse
    {
        return $this->carryOut($id, new RenamePoint($this->connection, $request->from, trim($request->to)));
    }

    private function carryOut(int $id, Operation $operation): JsonResponse
    {
        $project = $this->access->change($id);

        return new JsonResponse(['seq' => $this->ledger->carryOut($project, $this->access->user()->name(), $operation)]);
    }
}
