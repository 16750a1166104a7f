<?php

declare(strict_types=1);

namespace App\Job;

use App\Api\Id;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/jobs')]
final class JobController
{
    public function __construct(private readonly JobList $list, private readonly Jobs $jobs)
    {
    }

    #[Route('', methods: 'GET')]
    public function recent(#[Reads] Project $project): JsonResponse
    {
        return new JsonResponse($this->list->recent($project));
    }

    #[Route('/{job}', methods: 'GET')]
    public function show(#[Reads] Project $project, string $job): JsonResponse
    {
        return new JsonResponse($this->list->one($project, $job) ?? throw new NotFoundHttpException('There is no such job.'));
    }

    #[Route('/{job}/cancel', methods: 'POST')]
    public function cancel(#[Changes] Project $project, string $job): JsonResponse
    {
        $this->jobs->cancel($project, $job);

        return new JsonResponse(['ok' => true]);
    }
}
