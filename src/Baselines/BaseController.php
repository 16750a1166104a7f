<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Api\Id;
use App\Baselines\Base\BaseCorrection;
use App\Baselines\Base\BasePage;
use App\Baselines\Base\CorrectBase;
use App\Baselines\Request\BaseRequest;
use App\Baselines\Request\ReportRequest;
use App\Baselines\View\ReportView;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Survey\PointRepository;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\PositionReport\PositionReport;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

/** Base corrections. */
#[Route(Id::PROJECT.'/baselines/base')]
final class BaseController
{
    #[Route('', methods: 'GET')]
    public function base(#[Reads] Project $project, BasePage $page): JsonResponse
    {
        return new JsonResponse($page->of($project));
    }

    #[Route('/preview', methods: 'POST')]
    public function preview(#[Reads] Project $project, #[MapRequestPayload] BaseRequest $request, BaseCorrection $correction): JsonResponse
    {
        return new JsonResponse($correction->preview($project, $request));
    }

    #[Route('/report', methods: 'POST')]
    public function report(#[Reads] Project $project, #[MapRequestPayload] ReportRequest $request): JsonResponse
    {
        $r = PositionReport::read($request->text, 'the report');

        return new JsonResponse(new ReportView($r->marker, $r->frame, $r->epoch, $r->place, $r->sd, $r->method));
    }

    #[Route('', methods: 'POST')]
    public function correct(
        #[Changes] Project $project, #[MapRequestPayload] BaseRequest $request, BaseCorrection $correction, PointRepository $points,
        SurveyFileRepository $files, Desk $desk,
    ): JsonResponse {
        return new JsonResponse($desk->carryOut($project, new CorrectBase($correction, $points, $files, $request)));
    }
}
