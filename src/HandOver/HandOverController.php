<?php

declare(strict_types=1);

namespace App\HandOver;

use App\HandOver\Request\ExportRequest;
use App\HandOver\View\CheckView;
use App\HandOver\View\ExportView;
use App\HandOver\View\HandOverView;
use App\Job\Jobs;
use App\Ledger\Results;
use App\Project\ProjectAccess;
use App\Reference\GridFileList;
use App\Reference\View\GridFileView;
use App\Store\FileStore;
use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route('/api/projects/{id<\d+>}/handover')]
final class HandOverController
{
    private const TYPES = ['csv' => 'text/csv; charset=utf-8', 'dxf' => 'image/vnd.dxf', 'pdf' => 'application/pdf'];

    public function __construct(
        private readonly ProjectAccess $access,
        private readonly Results $results,
        private readonly FileStore $store,
        private readonly Connection $connection,
        private readonly GridFileList $grids,
    ) {
    }

    #[Route('', methods: 'GET')]
    public function list(int $id): JsonResponse
    {
        $project = $this->access->read($id);
        $stale = $this->results->stale($project);
        $newest = $archive = [];
        foreach ($this->results->current($project) as $slot => $row) {
            if (Exporter::kind() === $row['kind']) {
                foreach ($this->results->runs($project, $slot) as $i => $run) {
                    $view = self::view($run, 0 === $i ? $stale[$slot] ?? [] : ['a newer one was written']);
                    if (0 === $i) {
                        $newest[] = $view;
                    } else {
                        $archive[] = $view;
                    }
                }
            }
        }

        $extracts = array_filter($this->grids->of($project, null), static fn (GridFileView $g): bool => 'extract' === $g->origin);

        return new JsonResponse(new HandOverView($newest, $archive, array_values(array_map(static fn (GridFileView $g): array => ['id' => (int) $g->id, 'name' => $g->name, 'size' => $g->size, 'notes' => $g->notes], $extracts))));
    }

    #[Route('', methods: 'POST')]
    public function export(int $id, #[MapRequestPayload] ExportRequest $request, Jobs $jobs): JsonResponse
    {
        $project = $this->access->change($id);
        $titles = ['dxf' => 'Write the drawing', 'csv' => 'Write the coordinates', 'pdf' => 'Write the adjustment report'];

        return new JsonResponse(['job' => $jobs->start($project, $this->access->user(), ExportHandler::kind(), $titles[$request->kind], ['kind' => $request->kind, 'surfaces' => array_values(array_map(intval(...), $request->surfaces))])], 202);
    }

    #[Route('/{result<\d+>}/file', methods: 'GET')]
    public function download(int $id, int $result): Response
    {
        $project = $this->access->read($id);
        $row = $this->connection->fetchAssociative("SELECT output, summary, settings FROM result WHERE id = ? AND project_id = ? AND kind = 'export'", [$result, $project->id()]);
        if (false === $row) {
            throw new NotFoundHttpException('There is no such file.');
        }
        $summary = json_decode($row['summary'], true, 32, \JSON_THROW_ON_ERROR);
        if (true !== $summary['holds']) {
            throw new ConflictHttpException('Its receipt does not hold, so this file is not offered. Write it again.');
        }

        return new Response($this->store->get($row['output']), 200, [
            'Content-Type' => self::TYPES[json_decode($row['settings'], true, 8, \JSON_THROW_ON_ERROR)['kind']],
            'Content-Disposition' => HeaderUtils::makeDisposition(HeaderUtils::DISPOSITION_ATTACHMENT, $summary['file']),
        ]);
    }

    /**
     * @param array<string, mixed> $run
     * @param list<string>         $stale
     */
    private static function view(array $run, array $stale): ExportView
    {
        $s = $run['summary'];

        return new ExportView(
            (int) $run['id'], $run['slot'], $run['settings']['kind'], $run['label'], $s['file'], (int) $s['size'], (int) $run['run'], strtr($run['created_at'], ' ', 'T').'Z', $run['author_name'], $s['holds'],
            array_values(array_map(static fn (array $c): CheckView => new CheckView($c['what'], $c['expected'], $c['found'], $c['holds']), $s['checks'])), $s['leftOut'], $stale,
        );
    }
}
