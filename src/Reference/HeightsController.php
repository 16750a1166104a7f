<?php

declare(strict_types=1);

namespace App\Reference;

use App\Api\Download;
use App\Api\Id;
use App\Api\Upload;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Reference\Request\ExtractRequest;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Grid\Gtx;
use Mensura\Reference\Grid\Isg;
use Mensura\Reference\Grid\OutsideGrid;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Geoids and shift grids: import, a value at a point, extracts for the field. */
#[Route(Id::PROJECT.'/reference')]
final class HeightsController
{
    public function __construct(
        private readonly ProjectReference $references,
        private readonly ExtractPlanner $extracts,
        private readonly GridImport $import,
        private readonly Desk $desk,
    ) {
    }

    /** A geoid (GTX, ISG, GeoTIFF) or an NTv2 grid. */
    #[Route('/grids', methods: 'POST')]
    public function import(#[Changes] Project $project, Request $request): JsonResponse
    {
        $upload = Upload::of($request);
        $ellipsoid = $request->request->all()['ellipsoid'] ?? '';
        $keep = $this->import->file($upload->name, $upload->bytes(), \is_string($ellipsoid) ? mb_scrub($ellipsoid) : '');
        $done = $this->desk->carryOut($project, $keep);

        return new JsonResponse($done + ['id' => $keep->id()], 201);
    }

    /** Geoid height at a place, with what it was read from. */
    #[Route('/undulation', methods: 'GET')]
    public function undulation(#[Reads] Project $project, Request $request): JsonResponse
    {
        $lat = $request->query->get('lat');
        $lon = $request->query->get('lon');
        if (!is_numeric($lat) || !is_numeric($lon) || abs((float) $lat) > 90.0 || abs((float) $lon) > 360.0) {
            throw new UnusableInput('/lat', 'give latitude (-90 to 90) and longitude in degrees');
        }
        $geoid = $this->references->geoid($project->id(), (string) ($request->query->get('geoid') ?: $project->geoid()));
        try {
            return new JsonResponse(['n' => $geoid->height((float) $lat, (float) $lon), 'geoid' => $geoid->name]);
        } catch (OutsideGrid $e) {
            throw new UnusableInput('/lat', $e->getMessage());
        }
    }

    #[Route('/extract/plan', methods: 'POST')]
    public function plan(#[Reads] Project $project, #[MapRequestPayload] ExtractRequest $request): JsonResponse
    {
        return new JsonResponse($this->extracts->view($project, $this->extracts->plan($project, $request), null, null));
    }

    #[Route('/extract', methods: 'POST')]
    public function make(#[Changes] Project $project, #[MapRequestPayload] ExtractRequest $request): JsonResponse
    {
        $planned = $this->extracts->plan($project, $request);
        [$keep, $check] = $this->import->extract($planned);
        $this->desk->carryOut($project, $keep);

        return new JsonResponse($this->extracts->view($project, $planned, $keep->id(), $check), 201);
    }

    #[Route('/grids/{grid'.Id::NUMBER.'}.{format<gtx|isg>}', methods: 'GET')]
    public function download(#[Reads] Project $project, int $grid, string $format, GridFileRepository $files): Response
    {
        $file = $files->in($project, $grid);
        if (null === $file || !$file->isGeoid()) {
            throw new NotFoundHttpException('There is no such geoid in this project.');
        }
        $geoid = $this->references->geoid($project->id(), 'grid:'.$grid);
        $name = pathinfo($file->name, \PATHINFO_FILENAME).'.'.$format;

        return 'gtx' === $format
            ? Download::text(Gtx::write($geoid), $name, 'application/octet-stream')
            : Download::text(Isg::write($geoid), $name, 'text/plain; charset=utf-8');
    }
}
