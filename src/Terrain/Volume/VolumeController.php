<?php

declare(strict_types=1);

namespace App\Terrain\Volume;

use App\Api\Id;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use App\Terrain\Request\MaterialsRequest;
use App\Terrain\Request\VolumeRequest;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/terrain')]
final class VolumeController
{
    public function __construct(private readonly Results $results, private readonly FileStore $store, private readonly Desk $desk)
    {
    }

    #[Route('/volumes', methods: 'POST')]
    public function compute(#[Changes] Project $project, #[MapRequestPayload] VolumeRequest $request): JsonResponse
    {
        if (null !== $request->number) {
            $this->volume($project, $request->number);
        }
        $settings = VolumeSettings::of($request);
        $payload = ['number' => $request->number, 'settings' => (array) $settings];

        return new JsonResponse($this->desk->start($project, VolumeHandler::kind(), 'Volume '.$settings->name, $payload), 202);
    }

    #[Route('/materials', methods: 'PUT')]
    public function materials(
        #[Changes] Project $project, #[MapRequestPayload] MaterialsRequest $request, MaterialListRepository $lists,
    ): JsonResponse {
        return new JsonResponse($this->desk->carryOut($project, new KeepMaterials($lists, $request->materials(), $request->capacity)));
    }

    #[Route('/volumes/{number'.Id::NUMBER.'}/mesh', methods: 'GET')]
    public function mesh(#[Reads] Project $project, int $number): Response
    {
        $volume = $this->withIsopach($project, $number);

        return new Response($this->store->get($volume->output), 200, ['Content-Type' => 'application/octet-stream']);
    }

    /** Lines of equal thickness; the one of 0 is where cut meets fill. */
    #[Route('/volumes/{number'.Id::NUMBER.'}/contours', methods: 'GET')]
    public function contours(#[Reads] Project $project, int $number): JsonResponse
    {
        return new JsonResponse($this->store->getJson($this->withIsopach($project, $number)->summary['contours']));
    }

    private function withIsopach(Project $project, int $number): Result
    {
        $volume = $this->volume($project, $number);

        return isset($volume->summary['contours']) ? $volume
            : throw new NotFoundHttpException('The surfaces are too large for their isopach; only the figures are kept.');
    }

    private function volume(Project $project, int $number): Result
    {
        return $this->results->current($project)[VolumeMaker::PREFIX.$number]
            ?? throw new NotFoundHttpException('There is no such volume.');
    }
}
