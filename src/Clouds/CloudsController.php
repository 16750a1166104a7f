<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Api\Id;
use App\Clouds\Request\CloudRequest;
use App\Clouds\Request\PickRequest;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\PointRepository;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/clouds')]
final class CloudsController
{
    public function __construct(private readonly MadeClouds $made)
    {
    }

    #[Route('', methods: 'GET')]
    public function clouds(#[Reads] Project $project, CloudsPage $page): JsonResponse
    {
        return new JsonResponse($page->of($project));
    }

    #[Route('', methods: 'POST')]
    public function make(#[Changes] Project $project, #[MapRequestPayload] CloudRequest $request, Desk $desk): JsonResponse
    {
        if (null !== $request->number) {
            $this->refuseMissing($project, $request->number);
        }
        $settings = CloudSettings::of($request);
        $payload = ['number' => $request->number, 'settings' => (array) $settings];

        return new JsonResponse($desk->start($project, CloudHandler::kind(), 'Make cloud '.$settings->name, $payload), 202);
    }

    /** A place picked in a cloud becomes a point. */
    #[Route('/{number'.Id::NUMBER.'}/points', methods: 'POST')]
    public function pick(
        #[Changes] Project $project, int $number, #[MapRequestPayload] PickRequest $request, Desk $desk, PointRepository $points,
    ): JsonResponse {
        $this->refuseMissing($project, $number);
        $cloud = (string) $this->made->of($project)[$number]->summary['name'];

        return new JsonResponse($desk->carryOut($project, new TakePick($points, $cloud, $request)), 201);
    }

    /** A file of the tiles a run of the cloud is looked at by; it never changes. */
    #[Route('/{number'.Id::NUMBER.'}/tiles/{output<[0-9a-f]+>}/{file<[a-z0-9.]+>}', methods: 'GET')]
    public function tile(#[Reads] Project $project, int $number, string $output, string $file, Results $results, FileStore $store): Response
    {
        $known = array_column($results->runs($project, CloudMaker::PREFIX.$number), 'output');
        $bytes = \in_array($output, $known, true) ? TileArchive::file($store->pathOfParts($output), $file) : null;
        if (null === $bytes) {
            throw new NotFoundHttpException('There is no such tile.');
        }
        $type = str_ends_with($file, '.json') ? 'application/json' : 'application/octet-stream';

        return new Response($bytes, 200, ['Content-Type' => $type, 'Cache-Control' => 'private, max-age=31536000, immutable']);
    }

    private function refuseMissing(Project $project, int $number): void
    {
        if (!isset($this->made->of($project)[$number])) {
            throw new NotFoundHttpException('There is no such cloud.');
        }
    }
}
