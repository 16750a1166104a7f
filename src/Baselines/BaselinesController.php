<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Api\Download;
use App\Api\Id;
use App\Baselines\Request\AllowanceRequest;
use App\Baselines\Request\EpochsRequest;
use App\Baselines\Request\OccupationRequest;
use App\Baselines\Request\ProcessRequest;
use App\Baselines\Request\StopsRequest;
use App\Baselines\Request\VectorsRequest;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Result\Results;
use App\Store\FileStore;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapQueryString;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/baselines')]
final class BaselinesController
{
    private const PAIR = '[0-9]{1,15}(?:-[0-9]{1,15})?';

    public function __construct(
        private readonly BaselineOperations $operations,
        private readonly Desk $desk,
        private readonly Results $results,
        private readonly FileStore $store,
        private readonly Pairs $pairs,
    ) {
    }

    #[Route('', methods: 'GET')]
    public function baselines(
        #[Reads] Project $project, BaselinesPage $page,
        #[MapQueryString(validationFailedStatusCode: 422)] AllowanceRequest $allowance = new AllowanceRequest(),
    ): JsonResponse {
        return new JsonResponse($page->of($project, $allowance));
    }

    #[Route('/process', methods: 'POST')]
    public function process(#[Changes] Project $project, #[MapRequestPayload] ProcessRequest $request): JsonResponse
    {
        $settings = ProcessingSettings::of($request);
        foreach ($request->pairs as $ids) {
            $this->pairs->chosen($project, $ids);
        }
        $title = 1 === \count($request->pairs) ? 'Process a baseline' : \sprintf('Process %d baselines', \count($request->pairs));
        $payload = ['pairs' => $request->pairs, 'settings' => (array) $settings];

        return new JsonResponse($this->desk->start($project, ProcessHandler::kind(), $title, $payload), 202);
    }

    #[Route('/epochs', methods: 'POST')]
    public function epochs(#[Changes] Project $project, #[MapRequestPayload] EpochsRequest $request): JsonResponse
    {
        $pair = $this->pairs->chosen($project, [$request->base, $request->rover]);
        $payload = ['base' => $request->base, 'rover' => $request->rover, 'settings' => (array) new ProcessingSettings()];

        return new JsonResponse($this->desk->start(
            $project, EpochsHandler::kind(), 'Solve '.$pair->rover->marker.' epoch by epoch', $payload,
        ), 202);
    }

    #[Route('/occupations/{occupation'.Id::NUMBER.'}', methods: 'PUT')]
    public function occupation(#[Changes] Project $project, int $occupation, #[MapRequestPayload] OccupationRequest $request): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->occupation($occupation, $request, $this->desk->seen())));
    }

    #[Route('/occupations/{occupation'.Id::NUMBER.'}/sky', methods: 'GET')]
    public function sky(#[Reads] Project $project, int $occupation, OccupationSky $sky): JsonResponse
    {
        return new JsonResponse($sky->of($project, $occupation));
    }

    /** Writes a receiver's own file as RINEX, reads it back and takes it in. */
    #[Route('/recordings/{file'.Id::NUMBER.'}/rinex', methods: 'POST')]
    public function rinex(#[Changes] Project $project, int $file, Recordings $recordings): JsonResponse
    {
        return new JsonResponse(['files' => $recordings->write($project, $this->desk->member(), $file)]);
    }

    /** What is written, to keep. */
    #[Route('/recordings/{file'.Id::NUMBER.'}/observations', methods: 'GET')]
    public function recordedObservations(#[Reads] Project $project, int $file, Recordings $recordings): Response
    {
        return $this->made($recordings->rinex($project, $file)['observations'] ?? null);
    }

    #[Route('/recordings/{file'.Id::NUMBER.'}/navigation', methods: 'GET')]
    public function recordedNavigation(#[Reads] Project $project, int $file, Recordings $recordings): Response
    {
        return $this->made($recordings->rinex($project, $file)['navigation'] ?? null);
    }

    #[Route('/accept', methods: 'POST')]
    public function accept(#[Changes] Project $project, #[MapRequestPayload] VectorsRequest $request): JsonResponse
    {
        $slots = array_map(static fn (string $key): string => Slots::STATIC.$key, array_values(array_unique($request->baselines)));

        return new JsonResponse($this->desk->carryOut($project, $this->operations->accept($slots)));
    }

    #[Route('/runs/{pair<'.self::PAIR.'>}', methods: 'GET')]
    public function run(#[Reads] Project $project, string $pair): JsonResponse
    {
        return $this->document($project, Slots::STATIC.$pair);
    }

    /** The stops of a rover become points of the project. */
    #[Route('/stops/{pair<'.self::PAIR.'>}', methods: 'POST')]
    public function stops(
        #[Changes] Project $project, string $pair, #[MapRequestPayload] StopsRequest $request, StopPoints $stops,
    ): JsonResponse {
        return new JsonResponse(['file' => $stops->take($project, $this->desk->member(), $pair, $request)]);
    }

    #[Route('/scatter/{pair<'.self::PAIR.'>}', methods: 'GET')]
    public function scatter(#[Reads] Project $project, string $pair): JsonResponse
    {
        return $this->document($project, Slots::EPOCHS.$pair);
    }

    /** @param ?array{string, string} $file name and text */
    private function made(?array $file): Response
    {
        return null === $file ? throw new NotFoundHttpException('It holds none.') : Download::text($file[1], $file[0], 'text/plain');
    }

    private function document(Project $project, string $slot): JsonResponse
    {
        $result = $this->results->current($project)[$slot] ?? throw new NotFoundHttpException('This is not solved yet.');

        return new JsonResponse($this->store->getJson($result->output));
    }
}
