<?php

declare(strict_types=1);

namespace App\Terrain\Section;

use App\Api\Id;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use App\Terrain\Request\SectionRequest;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/terrain/sections')]
final class SectionController
{
    public function __construct(private readonly Results $results, private readonly FileStore $store)
    {
    }

    #[Route('', methods: 'POST')]
    public function cut(#[Changes] Project $project, #[MapRequestPayload] SectionRequest $request, Desk $desk): JsonResponse
    {
        if (null !== $request->number) {
            $this->section($project, $request->number);
        }
        $settings = SectionSettings::of($request);
        $payload = ['number' => $request->number, 'settings' => (array) $settings];

        return new JsonResponse($desk->start($project, SectionHandler::kind(), 'Section '.$settings->name, $payload), 202);
    }

    /** The drawing: the line with its stations, what is cut of each surface, points beside it, cross-sections. */
    #[Route('/{number'.Id::NUMBER.'}', methods: 'GET')]
    public function drawing(#[Reads] Project $project, int $number): JsonResponse
    {
        return new JsonResponse($this->store->getJson($this->section($project, $number)->output));
    }

    private function section(Project $project, int $number): Result
    {
        return $this->results->current($project)[SectionMaker::PREFIX.$number]
            ?? throw new NotFoundHttpException('There is no such section.');
    }
}
