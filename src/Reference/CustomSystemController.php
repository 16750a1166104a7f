<?php

declare(strict_types=1);

namespace App\Reference;

use App\Api\Download;
use App\Api\Id;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Reference\Request\CustomSystemRequest;
use App\Reference\Request\DesignRequest;
use App\Reference\Request\GroundRequest;
use App\Survey\Point;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Ground\GridPoint;
use Mensura\Reference\Ground\ScaledSystem;
use Mensura\Reference\Text\WktWriter;
use Mensura\Reference\UnsupportedMethod;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

/** Systems of the project's own: typed, imported, designed for a site, scaled to the ground. Kept as WKT2. */
#[Route(Id::PROJECT.'/reference')]
final class CustomSystemController
{
    public function __construct(
        private readonly ProjectReference $references,
        private readonly ReferenceOperations $operations,
        private readonly SystemDefiner $definer,
        private readonly Designer $designer,
        private readonly Desk $desk,
    ) {
    }

    #[Route('/custom/try', methods: 'POST')]
    public function try(#[Reads] Project $project, #[MapRequestPayload] CustomSystemRequest $request): JsonResponse
    {
        return new JsonResponse($this->definer->tried($request));
    }

    #[Route('/custom', methods: 'POST')]
    public function keep(#[Changes] Project $project, #[MapRequestPayload] CustomSystemRequest $request): JsonResponse
    {
        $keep = $this->operations->keepSystem($request->name, $this->definer->defined($request), 'Made the system '.$request->name);
        $this->desk->carryOut($project, $keep);

        return new JsonResponse(['id' => $keep->id()], 201);
    }

    /** An own system to share, as WKT2 or, where PROJ knows its projection, as a PROJ string. */
    #[Route('/custom/{system'.Id::NUMBER.'}.{format<wkt|proj>}', methods: 'GET')]
    public function download(#[Reads] Project $project, int $system, string $format): Response
    {
        $own = $this->references->projected($project->id(), 'custom:'.$system);
        $text = 'wkt' === $format ? WktWriter::write(new CoordinateSystem($own)) : SystemDescription::proj($own)."\n";
        if ("\n" === $text) {
            throw new UnusableInput('', 'a PROJ string has no word for this projection; take the WKT2');
        }
        $name = preg_replace('/[^A-Za-z0-9._-]+/', '_', $own->name).'.'.$format;

        return Download::text($text, $name, 'text/plain; charset=utf-8');
    }

    /** What a low-distortion system of the site would be. */
    #[Route('/design', methods: 'POST')]
    public function design(#[Reads] Project $project, #[MapRequestPayload] DesignRequest $request, KeepDesign $keep): JsonResponse
    {
        $design = $this->designer->design($project, $request);
        $kept = '' === $request->name ? null : $keep->carryOut($project, $request->name, $design);

        return new JsonResponse($this->designer->view($design, $kept), null === $kept ? 200 : 201);
    }

    /** The project's system scaled to the ground about one of its points. */
    #[Route('/ground', methods: 'POST')]
    public function ground(#[Changes] Project $project, #[MapRequestPayload] GroundRequest $request, PointRepository $points): JsonResponse
    {
        $system = $this->references->of($project) ?? throw new UnusableInput('', 'a plane project lies on the ground already');
        $p = $points->named($project, $request->point);
        if (null === $p || Point::LOCALLY === $p->known || null === $p->e || null === $p->n || null === $p->h) {
            throw new UnusableInput('/point', \sprintf('there is no point %s with coordinates and a height', $request->point));
        }
        [$lat, $lon] = $system->toGeographic($p->e, $p->n);
        $undulation = $this->references->geoidOf($project)?->height(rad2deg($lat), rad2deg($lon)) ?? 0.0;
        $factor = 1.0 / GridPoint::at($system, $p->e, $p->n, $p->h + $undulation)->combined();
        try {
            $scaled = ScaledSystem::about($system, $request->name, $p->e, $p->n, $factor);
        } catch (UnsupportedMethod $e) {
            throw new UnusableInput('', $e->getMessage());
        }
        $title = \sprintf('Scaled %s to the ground about %s: factor %.9f', $system->name, $request->point, $factor);
        $keep = $this->operations->keepSystem($request->name, $scaled, $title);
        $this->desk->carryOut($project, $keep);

        return new JsonResponse(['id' => $keep->id(), 'factor' => $factor], 201);
    }
}
