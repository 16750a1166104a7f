<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Api\Id;
use App\Export\AlignmentSource;
use App\Export\Exporter;
use App\HandOver\Cad\CadDefinition;
use App\HandOver\Cad\CadExport;
use App\HandOver\Cad\CadParts;
use App\HandOver\Cad\CadRepository;
use App\HandOver\Cad\KeptCad;
use App\HandOver\Catalogue\CatalogueRepository;
use App\HandOver\Kept\KeepNamed;
use App\HandOver\Request\CadRequest;
use App\HandOver\View\CadLayersView;
use App\HandOver\View\CadSetView;
use App\HandOver\View\CadView;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use Mensura\Fault\UnusableInput;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

/** What goes to drawing programs; it is written as every other file is. */
#[Route(Id::PROJECT.'/handover/cad')]
final class CadController
{
    public function __construct(private readonly CadRepository $sets, private readonly KeepNamed $keep)
    {
    }

    #[Route('', methods: 'GET')]
    public function list(
        #[Reads] Project $project, Choices $choices, WrittenFiles $written, AlignmentSource $alignments, CatalogueRepository $catalogues,
    ): JsonResponse {
        $sets = array_map(static function (KeptCad $s) use ($project, $written): CadSetView {
            $d = $s->definition();

            return new CadSetView(
                $s->id(), $s->version(), $s->name(), $d->format, $d->roles, $d->codes, $d->blocks, $d->texts, $d->surfaces, $d->layers,
                $d->alignments, $d->catalogue, $d->mapping, $d->codeLines, $d->within,
                $written->of($project, Exporter::PREFIX.CadExport::KEY.':'.$s->id()),
            );
        }, $this->sets->of($project));
        $tables = [];
        foreach ($catalogues->of($project) as $catalogue) {
            $tables[$catalogue->id()] = $catalogue->name();
        }

        return new JsonResponse(new CadView(
            $sets, $choices->surfaces($project), $choices->roles($project), $choices->codes($project), $choices->layers($project),
            $alignments->listed($project), Choices::listed($tables), Choices::colours(),
        ));
    }

    /** The layers it would have; nothing is kept. */
    #[Route('/layers', methods: 'POST')]
    public function layers(#[Reads] Project $project, #[MapRequestPayload] CadRequest $request, CadParts $parts): JsonResponse
    {
        $scene = $parts->of($project, CadDefinition::fromArray((array) $request));
        $layers = [];
        foreach ($scene->layers as $name => $layer) {
            $layers[] = ['name' => (string) $name] + $layer;
        }

        return new JsonResponse(new CadLayersView($layers, \count($scene->points), \count($scene->lines), $scene->faces()));
    }

    #[Route('', methods: 'POST')]
    public function create(#[Changes] Project $project, #[MapRequestPayload] CadRequest $request): JsonResponse
    {
        return $this->keep($project, $request, null);
    }

    #[Route('/{set'.Id::NUMBER.'}', methods: 'PUT')]
    public function change(#[Changes] Project $project, int $set, #[MapRequestPayload] CadRequest $request): JsonResponse
    {
        return $this->keep($project, $request, $set);
    }

    #[Route('/{set'.Id::NUMBER.'}', methods: 'DELETE')]
    public function remove(#[Changes] Project $project, int $set): JsonResponse
    {
        return new JsonResponse($this->keep->remove($this->sets, $project, $set));
    }

    private function keep(Project $project, CadRequest $request, ?int $existing): JsonResponse
    {
        $definition = CadDefinition::fromArray((array) $request);
        if ([] === [...$definition->roles, ...$definition->surfaces, ...$definition->layers, ...$definition->alignments]) {
            throw new UnusableInput('', 'nothing is chosen: choose points, a surface, a layer or an alignment');
        }

        return new JsonResponse(['set' => $this->keep->keep($this->sets, $project, $request->name, $definition, $existing)]);
    }
}
