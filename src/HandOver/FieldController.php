<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Api\Id;
use App\Export\Exporter;
use App\Export\WrittenFile;
use App\HandOver\Field\StakeOuts;
use App\HandOver\Field\TakeShots;
use App\HandOver\Package\HeldPackages;
use App\HandOver\Package\PackageExport;
use App\HandOver\Request\FixesRequest;
use App\HandOver\Request\ShotsRequest;
use App\HandOver\View\HeldDrawingView;
use App\HandOver\View\HeldView;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Result\Result;
use App\Result\ResultRepository;
use App\Review\Checked;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** What a package holds, read back from its zip, and the simulated controller that opens it. */
#[Route(Id::PROJECT.'/handover')]
final class FieldController
{
    private const HELD = '/{result'.Id::NUMBER.'}/held';

    public function __construct(private readonly HeldPackages $held, private readonly ResultRepository $results)
    {
    }

    #[Route(self::HELD, methods: 'GET')]
    public function held(#[Reads] Project $project, int $result, Checked $checked): JsonResponse
    {
        $package = $this->package($project, $result);
        $about = $this->held->about($package->output);
        // Looked at once it was written: what the manifest cannot say yet.
        $about['checked'] = $checked->words($project, $package->slot);

        return new JsonResponse(new HeldView(...$about));
    }

    #[Route(self::HELD.'/drawing', methods: 'GET')]
    public function drawing(#[Reads] Project $project, int $result): JsonResponse
    {
        return new JsonResponse(new HeldDrawingView(...$this->held->drawing($this->package($project, $result)->output)));
    }

    #[Route(self::HELD.'/surfaces/{surface'.Id::NUMBER.'}', methods: 'GET')]
    public function surface(#[Reads] Project $project, int $result, int $surface): Response
    {
        $mesh = $this->held->mesh($this->package($project, $result)->output, $surface);

        return new Response($mesh, 200, ['Content-Type' => 'application/octet-stream']);
    }

    /** Without a package: positions alone. */
    #[Route('/rover/fixes', methods: 'POST')]
    public function rover(#[Reads] Project $project, #[MapRequestPayload] FixesRequest $request, StakeOuts $stakeOuts): JsonResponse
    {
        return new JsonResponse($stakeOuts->alone($project, $request));
    }

    #[Route(self::HELD.'/fixes', methods: 'POST')]
    public function fixes(
        #[Reads] Project $project, int $result, #[MapRequestPayload] FixesRequest $request, StakeOuts $stakeOuts,
    ): JsonResponse {
        return new JsonResponse($stakeOuts->at($this->package($project, $result)->output, $request));
    }

    #[Route(self::HELD.'/shots', methods: 'POST')]
    public function shots(
        #[Changes] Project $project, int $result, #[MapRequestPayload] ShotsRequest $request, TakeShots $shots, Desk $desk,
    ): JsonResponse {
        $package = $this->package($project, $result);
        $name = pathinfo(WrittenFile::kept($package)['file'], \PATHINFO_FILENAME).'-'.$package->run;

        return new JsonResponse($shots->take($project, $desk->member(), $request, $name));
    }

    private function package(Project $project, int $result): Result
    {
        $found = $this->results->findOneBy(['project' => $project->id(), 'id' => $result, 'kind' => Exporter::kind()]);
        if (null === $found || PackageExport::KEY !== ($found->settings['kind'] ?? null)) {
            throw new NotFoundHttpException('There is no such package.');
        }
        if (!WrittenFile::kept($found)['holds']) {
            throw new ConflictHttpException('Its receipt does not hold, so this package is not opened. Write it again.');
        }

        return $found;
    }
}
