<?php

declare(strict_types=1);

namespace App\Clouds\Flight;

use App\Api\Id;
use App\Api\StoredJson;
use App\Clouds\Request\FlightRequest;
use App\Clouds\Request\OrthoRequest;
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

#[Route(Id::PROJECT.'/clouds')]
final class FlightController
{
    public function __construct(private readonly FlightPage $page, private readonly Desk $desk)
    {
    }

    #[Route('/flights', methods: 'GET')]
    public function flights(#[Reads] Project $project): JsonResponse
    {
        return new JsonResponse($this->page->of($project));
    }

    #[Route('/flights', methods: 'POST')]
    public function adjust(#[Changes] Project $project, #[MapRequestPayload] FlightRequest $request): JsonResponse
    {
        if (null !== $request->number) {
            $this->known($project, FlightMaker::PREFIX, $request->number);
        }
        $settings = FlightSettings::of($request);
        $payload = ['number' => $request->number, 'settings' => (array) $settings];

        return new JsonResponse($this->desk->start($project, FlightHandler::kind(), 'Adjust flight '.$settings->name, $payload), 202);
    }

    /** Images, tie points and residuals of an adjusted flight. */
    #[Route('/flights/{number'.Id::NUMBER.'}', methods: 'GET')]
    public function figures(#[Reads] Project $project, int $number, FileStore $store, Request $request): Response
    {
        return StoredJson::answer($store, $this->known($project, FlightMaker::PREFIX, $number)->output, $request);
    }

    /** What the images of a mission show of the ground. */
    #[Route('/missions/{mission'.Id::NUMBER.'}', methods: 'GET')]
    public function mission(#[Reads] Project $project, int $mission): JsonResponse
    {
        return new JsonResponse($this->page->mission($project, $mission));
    }

    /** Where they show a control or check point. */
    #[Route('/missions/{mission'.Id::NUMBER.'}/shows/{point}', methods: 'GET')]
    public function shows(#[Reads] Project $project, int $mission, string $point): JsonResponse
    {
        return new JsonResponse($this->page->shows($project, $mission, $point));
    }

    #[Route('/orthos', methods: 'POST')]
    public function ortho(#[Changes] Project $project, #[MapRequestPayload] OrthoRequest $request): JsonResponse
    {
        if (null !== $request->number) {
            $this->known($project, OrthoMaker::PREFIX, $request->number);
        }
        $settings = OrthoSettings::of($request);
        $payload = ['number' => $request->number, 'settings' => (array) $settings];

        return new JsonResponse($this->desk->start($project, OrthoHandler::kind(), 'Orthoimage '.$settings->name, $payload), 202);
    }

    /** A small picture of an orthoimage. */
    #[Route('/orthos/{number'.Id::NUMBER.'}/picture', methods: 'GET')]
    public function picture(#[Reads] Project $project, int $number, FileStore $store): Response
    {
        $zip = new \ZipArchive();
        $zip->open($store->localPath($this->known($project, OrthoMaker::PREFIX, $number)->output), \ZipArchive::RDONLY);
        $bytes = (string) $zip->getFromName(OrthoMaker::PICTURE);
        $zip->close();

        return new Response($bytes, 200, ['Content-Type' => 'image/jpeg', 'Cache-Control' => 'private, max-age=60']);
    }

    private function known(Project $project, string $prefix, int $number): Result
    {
        return $this->page->all($project, $prefix)[$number] ?? throw new NotFoundHttpException('There is no such result.');
    }
}
