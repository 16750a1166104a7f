<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Api\Id;
use App\Baselines\Request\StationOrderRequest;
use App\Baselines\Stations\OrderHandler;
use App\Baselines\Stations\StationClient;
use App\Baselines\Stations\StationPage;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Store\FileStore;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Reference stations and the positioning service. */
#[Route(Id::PROJECT.'/baselines')]
final class StationsController
{
    #[Route('/stations', methods: 'GET')]
    public function stations(#[Reads] Project $project, StationPage $page): JsonResponse
    {
        return new JsonResponse($page->of($project));
    }

    #[Route('/stations/order', methods: 'POST')]
    public function order(#[Changes] Project $project, #[MapRequestPayload] StationOrderRequest $request, Desk $desk): JsonResponse
    {
        $title = \sprintf(
            'Reference station %s, %s to %s UTC', $request->station, substr($request->from, 0, 16), substr($request->to, 11, 5),
        );

        return new JsonResponse($desk->start(
            $project, OrderHandler::kind(), $title, ['author' => $desk->member()->id()] + (array) $request,
        ), 202);
    }

    /** Sends the file of an occupation to the positioning service, and gives its report back as text. */
    #[Route('/occupations/{occupation'.Id::NUMBER.'}/position', methods: 'POST')]
    public function position(
        #[Changes] Project $project, int $occupation, OccupationRepository $occupations, StationClient $client, FileStore $store,
    ): JsonResponse {
        $o = $occupations->in($project, $occupation) ?? throw new NotFoundHttpException('There is no such occupation.');

        return new JsonResponse(['text' => $client->position($o->file->name(), $store->get($o->file->sha256()))]);
    }
}
