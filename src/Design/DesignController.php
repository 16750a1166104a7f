<?php

declare(strict_types=1);

namespace App\Design;

use App\Api\Id;
use App\Design\Request\TakePointsRequest;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Survey\PointRepository;
use App\Survey\SurveyFileRepository;
use Mensura\Fault\UnusableInput;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/designs')]
final class DesignController
{
    public function __construct(private readonly DesignFiles $designs)
    {
    }

    #[Route('', methods: 'GET')]
    public function designs(#[Reads] Project $project): JsonResponse
    {
        return new JsonResponse($this->designs->drawings($project));
    }

    #[Route('/{design'.Id::NUMBER.'}', methods: 'GET')]
    public function drawing(#[Reads] Project $project, int $design): JsonResponse
    {
        try {
            return new JsonResponse($this->designs->view($project, $design));
        } catch (UnusableInput $e) {
            throw '/design' === $e->where ? new NotFoundHttpException('There is no such design.') : $e;
        }
    }

    #[Route('/{design'.Id::NUMBER.'}/points', methods: 'POST')]
    public function points(
        #[Changes] Project $project, int $design, #[MapRequestPayload] TakePointsRequest $request, Desk $desk, SurveyFileRepository $files,
        PointRepository $points,
    ): JsonResponse {
        $take = new TakePoints(
            $files, $this->designs, $points, $design, array_values($request->corners), trim($request->prefix), trim($request->code),
            DesignFiles::METRES[$request->unit],
        );

        return new JsonResponse($desk->carryOut($project, $take));
    }
}
