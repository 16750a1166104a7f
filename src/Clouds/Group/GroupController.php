<?php

declare(strict_types=1);

namespace App\Clouds\Group;

use App\Api\Id;
use App\Clouds\Flight\FlightMaker;
use App\Clouds\Flight\FlightPage;
use App\Clouds\Request\DenseRequest;
use App\Clouds\Request\RaysPointRequest;
use App\Clouds\Request\RaysRequest;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Result\Result;
use App\Survey\PointRepository;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Points from the images of adjusted groups and flights: picked one by one, or as dense as they show them. */
#[Route(Id::PROJECT.'/clouds')]
final class GroupController
{
    public function __construct(private readonly FlightPage $flights, private readonly GroupRays $rays, private readonly Desk $desk)
    {
    }

    /** Where rays meet; the images that show the first one are searched if wished. */
    #[Route('/flights/{number'.Id::NUMBER.'}/rays', methods: 'POST')]
    public function rays(#[Reads] Project $project, int $number, #[MapRequestPayload] RaysRequest $request): JsonResponse
    {
        $this->known($project, $number);

        return new JsonResponse($this->rays->of($project, $number, $request->rays, $request->find));
    }

    #[Route('/flights/{number'.Id::NUMBER.'}/points', methods: 'POST')]
    public function point(
        #[Changes] Project $project, int $number, #[MapRequestPayload] RaysPointRequest $request, PointRepository $points,
    ): JsonResponse {
        $group = (string) $this->known($project, $number)->summary['name'];
        $met = $this->rays->of($project, $number, $request->rays, false);

        return new JsonResponse($this->desk->carryOut($project, new TakeRays($points, $group, $request, $met)), 201);
    }

    #[Route('/dense', methods: 'POST')]
    public function dense(#[Changes] Project $project, #[MapRequestPayload] DenseRequest $request): JsonResponse
    {
        foreach ($request->flights as $number) {
            $this->known($project, $number);
        }
        if (null !== $request->number && !isset($this->flights->all($project, DenseMaker::PREFIX)[$request->number])) {
            throw new NotFoundHttpException('There is no such result.');
        }
        $settings = DenseSettings::of($request);
        $payload = ['number' => $request->number, 'settings' => (array) $settings];

        return new JsonResponse($this->desk->start($project, DenseHandler::kind(), 'Dense points '.$settings->name, $payload), 202);
    }

    private function known(Project $project, int $number): Result
    {
        return $this->flights->all($project, FlightMaker::PREFIX)[$number]
            ?? throw new NotFoundHttpException('There is no such flight or group of images.');
    }
}
