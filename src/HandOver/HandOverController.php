<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Api\Download;
use App\Api\Id;
use App\Export\Exporter;
use App\Export\ExportHandler;
use App\Export\ExportKinds;
use App\Export\WrittenFile;
use App\HandOver\Request\ExportRequest;
use App\HandOver\Request\LetterheadRequest;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Result\Result;
use App\Result\ResultRepository;
use App\Store\FileStore;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/handover')]
final class HandOverController
{
    public function __construct(private readonly ExportKinds $kinds, private readonly ResultRepository $results)
    {
    }

    #[Route('', methods: 'GET')]
    public function list(#[Reads] Project $project, Archive $archive): JsonResponse
    {
        return new JsonResponse($archive->of($project));
    }

    #[Route('', methods: 'POST')]
    public function export(#[Changes] Project $project, #[MapRequestPayload] ExportRequest $request, Desk $desk): JsonResponse
    {
        $doing = $this->kinds->named($request->kind)->about()->doing;
        $payload = ['kind' => $request->kind, 'surfaces' => $request->surfaceIds()];

        return new JsonResponse($desk->start($project, ExportHandler::kind(), $doing, $payload), 202);
    }

    #[Route('/letterhead', methods: 'PUT')]
    public function letterhead(#[Changes] Project $project, #[MapRequestPayload] LetterheadRequest $request, Desk $desk): JsonResponse
    {
        return new JsonResponse($desk->carryOut($project, new ChangeLetterhead(trim($request->letterhead))));
    }

    /** What differs between it and another of its kind, and why. */
    #[Route('/{result'.Id::NUMBER.'}/against/{other'.Id::NUMBER.'}', methods: 'GET')]
    public function compare(#[Reads] Project $project, int $result, int $other, Comparison $comparison): JsonResponse
    {
        $found = array_map(fn (int $id): Result => $this->results->findOneBy([
            'project' => $project->id(), 'id' => $id, 'kind' => Exporter::kind(),
        ]) ?? throw new NotFoundHttpException('There is no such file.'), [$other, $result]);
        if ($found[0]->settings['kind'] !== $found[1]->settings['kind']) {
            throw new NotFoundHttpException('These files are not of a kind.');
        }

        return new JsonResponse($comparison->of(...$found));
    }

    #[Route('/{result'.Id::NUMBER.'}/file', methods: 'GET')]
    public function download(#[Reads] Project $project, int $result, FileStore $store): Response
    {
        $export = $this->results->findOneBy(['project' => $project->id(), 'id' => $result, 'kind' => Exporter::kind()]);
        if (null === $export) {
            throw new NotFoundHttpException('There is no such file.');
        }
        $file = WrittenFile::kept($export);
        if (!$file['holds']) {
            throw new ConflictHttpException('Its receipt does not hold, so this file is not offered. Write it again.');
        }
        $about = $this->kinds->named($export->settings['kind'])->about();

        return Download::file($store->localPath($export->output), $file['file'], $about->mediaType);
    }
}
