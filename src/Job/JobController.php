<?php

declare(strict_types=1);

namespace App\Job;

use App\Project\ProjectAccess;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route('/api/projects/{id<\d+>}/jobs')]
final class JobController
{
    public function __construct(private readonly ProjectAccess $access, private readonly JobList $list, private readonly Jobs $jobs)
    {
    }

    #[Route('', methods: 'GET')]
    public function recent(int $id): JsonResponse
    {
        return new JsonResponse($this->list->recent($this->access->read($id)));
    }

    #[Route('/{job}', methods: 'GET')]
    public function show(int $id, string $job): JsonResponse
    {
        return new JsonResponse($this->list->one($this->access->read($id), $job) ?? throw new NotFoundHttpException('There is no such job.'));
    }

    #[Route('/{job}/cancel', methods: 'POST')]
    public function cancel(int $id, string $job): JsonResponse
    {
        $this->jobs->cancel($this->access->change($id), $job);

        return new JsonResponse(['ok' => true]);
    }
}
