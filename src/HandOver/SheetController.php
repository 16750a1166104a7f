<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Api\Id;
use App\HandOver\Kept\KeepNamed;
use App\HandOver\Request\LockRequest;
use App\HandOver\Request\ScaleFitRequest;
use App\HandOver\Request\SheetRequest;
use App\HandOver\Request\ViewRequest;
use App\HandOver\Sheet\SavedViewRepository;
use App\HandOver\Sheet\SheetDefinition;
use App\HandOver\Sheet\SheetDrawing;
use App\HandOver\Sheet\SheetPage;
use App\HandOver\Sheet\SheetRepository;
use App\HandOver\Sheet\ViewDefinition;
use App\HandOver\Sheet\ViewDrawing;
use App\HandOver\View\ScaleFitView;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use Mensura\Fault\UnusableInput;
use Mensura\Plot\ScaleChoice;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Views and sheets; sheets are written as every other file is. */
#[Route(Id::PROJECT.'/handover')]
final class SheetController
{
    public function __construct(
        private readonly SheetRepository $sheets, private readonly SavedViewRepository $views, private readonly KeepNamed $keep,
        private readonly SheetDrawing $drawing,
    ) {
    }

    #[Route('/sheets', methods: 'GET')]
    public function list(#[Reads] Project $project, SheetPage $page): JsonResponse
    {
        return new JsonResponse($page->of($project));
    }

    #[Route('/views', methods: 'POST')]
    public function createView(#[Changes] Project $project, #[MapRequestPayload] ViewRequest $request): JsonResponse
    {
        return $this->keepView($project, $request, null);
    }

    #[Route('/views/{view'.Id::NUMBER.'}', methods: 'PUT')]
    public function changeView(#[Changes] Project $project, int $view, #[MapRequestPayload] ViewRequest $request): JsonResponse
    {
        return $this->keepView($project, $request, $view);
    }

    /** Keeps what it shows now, or lets it follow the project again; locked once more, it looks again. */
    #[Route('/views/{view'.Id::NUMBER.'}/lock', methods: 'PUT')]
    public function lock(
        #[Changes] Project $project, int $view, #[MapRequestPayload] LockRequest $request, ViewDrawing $drawing,
    ): JsonResponse {
        $kept = $this->views->in($project, $view) ?? throw new NotFoundHttpException('There is no such view.');
        $free = $kept->definition()->locked('');
        $definition = $request->locked ? $free->locked($drawing->snapshot($project, $free)) : $free;

        return new JsonResponse(['view' => $this->keep->keep($this->views, $project, $kept->name(), $definition, $view)]);
    }

    #[Route('/views/{view'.Id::NUMBER.'}', methods: 'DELETE')]
    public function removeView(#[Changes] Project $project, int $view): JsonResponse
    {
        foreach ($this->sheets->of($project) as $sheet) {
            if (\in_array($view, array_column($sheet->definition()->windows, 'view'), true)) {
                throw new UnusableInput('', \sprintf('sheet %s shows this view; change the sheet first', $sheet->name()));
            }
        }

        return new JsonResponse($this->keep->remove($this->views, $project, $view));
    }

    #[Route('/sheets', methods: 'POST')]
    public function create(#[Changes] Project $project, #[MapRequestPayload] SheetRequest $request): JsonResponse
    {
        return $this->keepSheet($project, $request, null);
    }

    #[Route('/sheets/{sheet'.Id::NUMBER.'}', methods: 'PUT')]
    public function change(#[Changes] Project $project, int $sheet, #[MapRequestPayload] SheetRequest $request): JsonResponse
    {
        return $this->keepSheet($project, $request, $sheet);
    }

    #[Route('/sheets/{sheet'.Id::NUMBER.'}', methods: 'DELETE')]
    public function remove(#[Changes] Project $project, int $sheet): JsonResponse
    {
        return new JsonResponse($this->keep->remove($this->sheets, $project, $sheet));
    }

    /** The sheet as it would be, as the PDF itself; nothing is kept. */
    #[Route('/sheets/preview', methods: 'POST')]
    public function preview(#[Reads] Project $project, #[MapRequestPayload] SheetRequest $request): Response
    {
        [$bytes] = $this->drawing->pdf($project, [SheetDefinition::fromArray((array) $request)]);

        return new Response($bytes, 200, ['Content-Type' => 'application/pdf']);
    }

    #[Route('/sheets/fit', methods: 'POST')]
    public function fit(#[Reads] Project $project, #[MapRequestPayload] ScaleFitRequest $request): JsonResponse
    {
        $box = $this->drawing->view($project, $request->view, '/view')->box()
            ?? throw new UnusableInput('/view', 'this view shows nothing yet; choose what it shows');
        [$w, $h] = [$box[2] - $box[0], $box[3] - $box[1]];
        [$c, $s] = [abs(cos(deg2rad($request->rotation))), abs(sin(deg2rad($request->rotation)))];
        $scales = ScaleChoice::fitting($w * $c + $h * $s, $w * $s + $h * $c, $request->width, $request->height);

        return new JsonResponse(new ScaleFitView($scales, 0.5 * ($box[0] + $box[2]), 0.5 * ($box[1] + $box[3])));
    }

    private function keepView(Project $project, ViewRequest $request, ?int $existing): JsonResponse
    {
        $definition = ViewDefinition::fromArray((array) $request);
        if ([] === [...$definition->roles, ...$definition->surfaces, ...$definition->layers]) {
            throw new UnusableInput('', 'this view shows nothing: choose points, a surface or a layer for it');
        }
        // Locked is what it shows, which is looked at by locking alone.
        $locked = null === $existing ? '' : $this->views->in($project, $existing)?->definition()->locked ?? '';

        $id = $this->keep->keep($this->views, $project, $request->name, $definition->locked($locked), $existing);

        return new JsonResponse(['view' => $id]);
    }

    private function keepSheet(Project $project, SheetRequest $request, ?int $existing): JsonResponse
    {
        $definition = SheetDefinition::fromArray((array) $request);
        if ([] === $definition->windows) {
            throw new UnusableInput('/windows', 'this sheet shows nothing: give it a window with a view');
        }
        foreach ($definition->windows as $k => $w) {
            if (null === $this->views->in($project, $w['view'])) {
                throw new UnusableInput("/windows/$k/view", 'there is no such view; save one first');
            }
        }

        return new JsonResponse(['sheet' => $this->keep->keep($this->sheets, $project, $request->name, $definition, $existing)]);
    }
}
