<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Api\Id;
use App\Api\StoredJson;
use App\Clouds\Request\PassRequest;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Result\Result;
use App\Store\FileStore;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/clouds/passes')]
final class PassController
{
    public function __construct(private readonly PassPage $page)
    {
    }

    #[Route('', methods: 'GET')]
    public function passes(#[Reads] Project $project): JsonResponse
    {
        return new JsonResponse($this->page->of($project));
    }

    #[Route('', methods: 'POST')]
    public function align(#[Changes] Project $project, #[MapRequestPayload] PassRequest $request, Desk $desk): JsonResponse
    {
        if (null !== $request->number) {
            $this->pass($project, $request->number);
        }
        $settings = PassSettings::of($request);
        $payload = ['number' => $request->number, 'settings' => (array) $settings];

        return new JsonResponse($desk->start($project, PassHandler::kind(), 'Align pass '.$settings->name, $payload), 202);
    }

    /** Its stations, what it is corrected by, and both ways in plan. */
    #[Route('/{number'.Id::NUMBER.'}', methods: 'GET')]
    public function stations(#[Reads] Project $project, int $number, FileStore $store, Request $request): Response
    {
        return StoredJson::answer($store, $this->pass($project, $number)->output, $request);
    }

    /** Both scans across the way at a place along it, metres. */
    #[Route('/{number'.Id::NUMBER.'}/section/{along<\d{1,7}(?:\.\d{1,3})?>}', methods: 'GET')]
    public function section(#[Reads] Project $project, int $number, string $along): JsonResponse
    {
        return new JsonResponse($this->page->section($project, $this->pass($project, $number), (float) $along));
    }

    private function pass(Project $project, int $number): Result
    {
        return $this->page->all($project)[$number] ?? throw new NotFoundHttpException('There is no such pass.');
    }
}
