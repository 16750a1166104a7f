<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Api\Id;
use App\Export\Exporter;
use App\HandOver\Catalogue\CatalogueDefinition;
use App\HandOver\Catalogue\CatalogueExport;
use App\HandOver\Catalogue\CatalogueLines;
use App\HandOver\Catalogue\CatalogueRepository;
use App\HandOver\Catalogue\KeptCatalogue;
use App\HandOver\Catalogue\TakeCollected;
use App\HandOver\Kept\KeepNamed;
use App\HandOver\Request\CatalogueRequest;
use App\HandOver\Request\CollectedRequest;
use App\HandOver\View\CatalogueView;
use App\HandOver\View\LineworkView;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Result\ResultRepository;
use App\Store\FileStore;
use Mensura\Exchange\FeatureCatalogue\FeatureCatalogue;
use Mensura\Fault\UnusableInput;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Feature catalogues; their versions are written as every other file is. */
#[Route(Id::PROJECT.'/handover/catalogues')]
final class CatalogueController
{
    public function __construct(private readonly CatalogueRepository $catalogues, private readonly KeepNamed $keep)
    {
    }

    #[Route('', methods: 'GET')]
    public function list(#[Reads] Project $project, WrittenFiles $written): JsonResponse
    {
        return new JsonResponse(array_map(static function (KeptCatalogue $c) use ($project, $written): CatalogueView {
            $kept = $c->definition()->catalogue->toArray();
            $files = $written->of($project, Exporter::PREFIX.CatalogueExport::KEY.':'.$c->id());

            return new CatalogueView($c->id(), $c->version(), $c->name(), $kept['scope'], $kept['types'], $files);
        }, $this->catalogues->of($project)));
    }

    #[Route('', methods: 'POST')]
    public function create(#[Changes] Project $project, #[MapRequestPayload] CatalogueRequest $request): JsonResponse
    {
        return $this->keep($project, $request, null);
    }

    #[Route('/{catalogue'.Id::NUMBER.'}', methods: 'PUT')]
    public function change(#[Changes] Project $project, int $catalogue, #[MapRequestPayload] CatalogueRequest $request): JsonResponse
    {
        return $this->keep($project, $request, $catalogue);
    }

    #[Route('/{catalogue'.Id::NUMBER.'}', methods: 'DELETE')]
    public function remove(#[Changes] Project $project, int $catalogue): JsonResponse
    {
        return new JsonResponse($this->keep->remove($this->catalogues, $project, $catalogue));
    }

    /** A catalogue as its open file. */
    #[Route('/import', methods: 'POST')]
    public function import(#[Changes] Project $project, Request $request): JsonResponse
    {
        [$name, , $catalogue] = FeatureCatalogue::fromJson($request->getContent());
        $name = '' === trim($name) ? 'catalogue' : mb_substr(trim($name), 0, 70);
        for ($free = $name, $k = 2; null !== $this->catalogues->named($project, $free); ++$k) {
            $free = "$name $k";
        }

        $id = $this->keep->keep($this->catalogues, $project, $free, new CatalogueDefinition($catalogue), null);

        return new JsonResponse(['catalogue' => $id]);
    }

    /** Lines that the codes of the points draw. */
    #[Route('/{catalogue'.Id::NUMBER.'}/lines', methods: 'GET')]
    public function lines(#[Reads] Project $project, int $catalogue, CatalogueLines $lines): JsonResponse
    {
        $kept = $this->catalogues->in($project, $catalogue) ?? throw new NotFoundHttpException('There is no such catalogue.');

        return new JsonResponse(LineworkView::of($lines->of($project, $kept->definition()->catalogue)));
    }

    /** What was collected with a version of the catalogue. */
    #[Route('/versions/{result'.Id::NUMBER.'}/collected', methods: 'POST')]
    public function collected(
        #[Changes] Project $project, int $result, #[MapRequestPayload] CollectedRequest $request, TakeCollected $take, Desk $desk,
        ResultRepository $results, FileStore $store,
    ): JsonResponse {
        $found = $results->findOneBy(['project' => $project->id(), 'id' => $result, 'kind' => Exporter::kind()]);
        if (null === $found || CatalogueExport::KEY !== ($found->settings['kind'] ?? null)) {
            throw new NotFoundHttpException('There is no such version of a catalogue.');
        }
        [$name, $version, $catalogue] = FeatureCatalogue::fromJson($store->get($found->output));
        $of = trim((string) preg_replace('/[^\p{L}\p{N}]+/u', '-', $name), '-')."-$version";

        return new JsonResponse($take->take($project, $desk->member(), $request, $catalogue, $of));
    }

    private function keep(Project $project, CatalogueRequest $request, ?int $existing): JsonResponse
    {
        $definition = CatalogueDefinition::fromArray((array) $request);
        if ([] === $definition->catalogue->types) {
            throw new UnusableInput('/types', 'a catalogue holds at least one type');
        }

        return new JsonResponse(['catalogue' => $this->keep->keep($this->catalogues, $project, $request->name, $definition, $existing)]);
    }
}
