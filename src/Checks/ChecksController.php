<?php

declare(strict_types=1);

namespace App\Checks;

use App\Api\Id;
use App\Api\StoredJson;
use App\Checks\Request\BandsRequest;
use App\Checks\Request\DeviationRequest;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/checks')]
final class ChecksController
{
    public function __construct(private readonly Results $results, private readonly FileStore $store)
    {
    }

    #[Route('', methods: 'GET')]
    public function checks(#[Reads] Project $project, ChecksPage $page): JsonResponse
    {
        return new JsonResponse($page->of($project));
    }

    #[Route('/deviations', methods: 'POST')]
    public function compare(
        #[Changes] Project $project, #[MapRequestPayload] DeviationRequest $request, Desk $desk,
    ): JsonResponse {
        $number = $request->number;
        if (null !== $number) {
            $this->comparison($project, $number);
        }
        $settings = DeviationSettings::of($request);
        $payload = ['number' => $number, 'settings' => (array) $settings];

        return new JsonResponse($desk->start($project, DeviationHandler::kind(), 'Compare '.$settings->name, $payload), 202);
    }

    /** The bands the comparison is reported in. */
    #[Route('/deviations/{number'.Id::NUMBER.'}/bands', methods: 'PUT')]
    public function bands(
        #[Changes] Project $project, int $number, #[MapRequestPayload] BandsRequest $request, Desk $desk, BandsRepository $bands,
    ): JsonResponse {
        $of = (string) $this->comparison($project, $number)->summary['name'];
        $keep = new KeepBands($bands, $number, $of, $request->growing(), array_values($request->colours));

        return new JsonResponse($desk->carryOut($project, $keep));
    }

    /** What changed from another comparison to this one, place by place; null where the other has no place near. */
    #[Route('/deviations/{number'.Id::NUMBER.'}/since/{other'.Id::NUMBER.'}', methods: 'GET')]
    public function since(#[Reads] Project $project, int $number, int $other, ChangeSince $change): JsonResponse
    {
        return new JsonResponse($change->of($this->comparison($project, $number), $this->comparison($project, $other)));
    }

    /** Every point with its deviation, null beside the reference. */
    #[Route('/deviations/{number'.Id::NUMBER.'}/points', methods: 'GET')]
    public function points(#[Reads] Project $project, int $number, Request $request): Response
    {
        return StoredJson::answer($this->store, $this->comparison($project, $number)->output, $request);
    }

    private function comparison(Project $project, int $number): Result
    {
        return $this->results->current($project)[DeviationMaker::PREFIX.$number]
            ?? throw new NotFoundHttpException('There is no such comparison.');
    }
}
