<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Api\Id;
use App\Export\Exporter;
use App\HandOver\Gis\GisDefinition;
use App\HandOver\Gis\GisExport;
use App\HandOver\Gis\GisRepository;
use App\HandOver\Gis\GisSet;
use App\HandOver\Gis\KeptGis;
use App\HandOver\Kept\KeepNamed;
use App\HandOver\Request\GisRequest;
use App\HandOver\View\GisCountView;
use App\HandOver\View\GisSetView;
use App\HandOver\View\GisView;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use Mensura\Fault\UnusableInput;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

/** What goes to information systems; it is written as every other file is. */
#[Route(Id::PROJECT.'/handover/gis')]
final class GisController
{
    public function __construct(private readonly GisRepository $sets, private readonly KeepNamed $keep)
    {
    }

    #[Route('', methods: 'GET')]
    public function list(#[Reads] Project $project, Choices $choices, WrittenFiles $written): JsonResponse
    {
        $sets = array_map(static function (KeptGis $s) use ($project, $written): GisSetView {
            $d = $s->definition();
            $files = $written->of($project, Exporter::PREFIX.GisExport::KEY.':'.$s->id());

            return new GisSetView(
                $s->id(), $s->version(), $s->name(), $d->format, $d->roles, $d->codes, $d->plan, $d->up, $d->unknown, $d->layers,
                $d->attributes, $d->system, $files,
            );
        }, $this->sets->of($project));
        $formats = [];
        foreach (GisDefinition::FORMATS as $key => $name) {
            $formats[] = ['key' => $key, 'name' => $name];
        }

        return new JsonResponse(new GisView(
            $sets, $formats, GisDefinition::ATTRIBUTES, $choices->roles($project), $choices->codes($project), $choices->layers($project),
        ));
    }

    /** What would go along; nothing is kept. */
    #[Route('/count', methods: 'POST')]
    public function count(#[Reads] Project $project, #[MapRequestPayload] GisRequest $request, GisSet $set): JsonResponse
    {
        [, $count] = $set->of($project, GisDefinition::fromArray((array) $request));

        return new JsonResponse(new GisCountView(
            $count['points'], $count['kept'], $count['worse'], $count['unknown'], $count['lines'], $count['areas'],
        ));
    }

    #[Route('', methods: 'POST')]
    public function create(#[Changes] Project $project, #[MapRequestPayload] GisRequest $request): JsonResponse
    {
        return $this->keep($project, $request, null);
    }

    #[Route('/{set'.Id::NUMBER.'}', methods: 'PUT')]
    public function change(#[Changes] Project $project, int $set, #[MapRequestPayload] GisRequest $request): JsonResponse
    {
        return $this->keep($project, $request, $set);
    }

    #[Route('/{set'.Id::NUMBER.'}', methods: 'DELETE')]
    public function remove(#[Changes] Project $project, int $set): JsonResponse
    {
        return new JsonResponse($this->keep->remove($this->sets, $project, $set));
    }

    private function keep(Project $project, GisRequest $request, ?int $existing): JsonResponse
    {
        $definition = GisDefinition::fromArray((array) $request);
        if ([] === [...$definition->roles, ...$definition->layers]) {
            throw new UnusableInput('', 'nothing is chosen: choose points or a layer');
        }

        return new JsonResponse(['set' => $this->keep->keep($this->sets, $project, $request->name, $definition, $existing)]);
    }
}
