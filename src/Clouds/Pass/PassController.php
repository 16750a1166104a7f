<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Api\Id;
use App\Api\StoredJson;
use App\Clouds\Request\MarkRequest;
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
    public function __construct(private readonly PassPage $page, private readonly MadePasses $made, private readonly PassSections $sections)
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
        return new JsonResponse($this->sections->at($project, $this->pass($project, $number), (float) $along));
    }

    /** What its scan shows around a control or check point, seen from above. */
    #[Route('/{number'.Id::NUMBER.'}/around', methods: 'POST')]
    public function around(
        #[Reads] Project $project, int $number, #[MapRequestPayload] MarkRequest $request, PassMarks $marks,
    ): JsonResponse {
        return new JsonResponse($marks->around($project, $this->pass($project, $number), $request->target));
    }

    /** A control or check point as its scan shows it where it is pointed at. */
    #[Route('/{number'.Id::NUMBER.'}/seen', methods: 'POST')]
    public function seen(
        #[Reads] Project $project, int $number, #[MapRequestPayload] MarkRequest $request, PassMarks $marks,
    ): JsonResponse {
        $pass = $this->pass($project, $number);

        return new JsonResponse($marks->seen($project, $pass, $request->target, $request->east, $request->north));
    }

    private function pass(Project $project, int $number): Result
    {
        return $this->made->of($project)[$number] ?? throw new NotFoundHttpException('There is no such pass.');
    }
}
