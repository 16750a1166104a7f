<?php

declare(strict_types=1);

namespace App\Transfer;

use App\Account\User;
use App\Api\Download;
use App\Api\Id;
use App\Api\RequestKey;
use App\Api\Upload;
use App\Job\Job;
use App\Job\JobRepository;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Store\FileStore;
use App\Transfer\Request\CopyRequest;
use App\Transfer\View\WrittenArchive;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;

/** A whole project out as an archive, in again, and a copy of it. */
final class TransferController
{
    public function __construct(private readonly JobRepository $jobs, private readonly FileStore $store)
    {
    }

    #[Route(Id::PROJECT.'/archives', methods: 'GET')]
    public function list(#[Reads] Project $project): JsonResponse
    {
        return new JsonResponse(array_map(static fn (Job $j): WrittenArchive => new WrittenArchive(
            $j->id, (string) ($j->outcome['written'] ?? ''), (int) ($j->outcome['bytes'] ?? 0), (string) ($j->outcome['fingerprint'] ?? ''),
            (int) ($j->outcome['files'] ?? 0), $j->author->name(),
        ), $this->written($project)));
    }

    #[Route(Id::PROJECT.'/archives', methods: 'POST')]
    public function write(#[Changes] Project $project, Desk $desk): JsonResponse
    {
        return new JsonResponse($desk->start($project, ArchiveHandler::kind(), 'Write the project archive'), 202);
    }

    #[Route(Id::PROJECT.'/archives/{job}', methods: 'GET')]
    public function download(#[Reads] Project $project, string $job): Response
    {
        foreach ($this->written($project) as $archive) {
            if ($archive->id === $job) {
                $name = trim(strtolower((string) preg_replace('/[^A-Za-z0-9]+/', '-', $project->name())), '-');

                return Download::file(
                    $this->store->localPath((string) ($archive->outcome['file'] ?? '')), ('' === $name ? 'project' : $name).'-archive.zip',
                    'application/zip',
                );
            }
        }
        throw new NotFoundHttpException('There is no such archive.');
    }

    #[Route(Id::PROJECT.'/copy', methods: 'POST')]
    public function copy(#[Changes] Project $project, #[MapRequestPayload] CopyRequest $request, Desk $desk): JsonResponse
    {
        $payload = ['name' => trim($request->called), 'owner' => $desk->member()->id()];

        return new JsonResponse($desk->start($project, CopyHandler::kind(), 'Copy the project', $payload), 202);
    }

    /** A new project of an archive; it is compared with its hashes before there is any. */
    #[Route('/api/archives', methods: 'POST')]
    public function bring(Request $request, #[CurrentUser] User $member, Begin $begin, RequestKey $key): JsonResponse
    {
        return new JsonResponse($begin->of(Upload::of($request)->path, $member, $key->value()), 202);
    }

    /** @return list<Job> */
    private function written(Project $project): array
    {
        return $this->jobs->lastDone($project->id(), ArchiveHandler::kind());
    }
}
