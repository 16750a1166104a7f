<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Api\Download;
use App\Api\Id;
use App\Baselines\Features\FeatureCorrection;
use App\Baselines\Features\FeaturesHandler;
use App\Baselines\Features\FeatureWork;
use App\Baselines\Request\FeaturesRequest;
use App\Baselines\View\FeatureFileView;
use App\Baselines\View\FeaturesPreview;
use App\Baselines\View\FeaturesView;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\RoverFeatures\CorrectedFeatures;
use Mensura\Gnss\Horizon;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Features of mapping rovers, corrected against references. */
#[Route(Id::PROJECT.'/baselines/features')]
final class FeaturesController
{
    public function __construct(
        private readonly FeatureWork $work,
        private readonly Results $results,
        private readonly FileStore $store,
    ) {
    }

    #[Route('', methods: 'GET')]
    public function features(#[Reads] Project $project, SurveyFileRepository $files): JsonResponse
    {
        $current = $this->results->current($project);
        $stale = $this->results->stale($project);
        $ours = array_filter(
            $files->of($project), static fn (SurveyFile $f): bool => !$f->isWaiting() && FileKind::RoverFeatures->value === $f->kind(),
        );

        return new JsonResponse(new FeaturesView(array_values(array_map(
            fn (SurveyFile $f): FeatureFileView => $this->file(
                $project, $f, $current[Slots::FEATURES.$f->id()] ?? null, $stale[Slots::FEATURES.$f->id()] ?? [],
            ), $ours,
        ))));
    }

    #[Route('/preview', methods: 'POST')]
    public function preview(#[Reads] Project $project, #[MapRequestPayload] FeaturesRequest $request, MarkPlace $places): JsonResponse
    {
        [$reference] = $this->work->references($project, $request);
        [$place, $header] = $this->work->place($project, $reference, $request);
        $less = null === $header ? null : Horizon::of($header)->components(
            $place[0] - $header[0], $place[1] - $header[1], $place[2] - $header[2],
        );

        return new JsonResponse(new FeaturesPreview($less, $places->inProject($project, $place)));
    }

    #[Route('', methods: 'POST')]
    public function correct(#[Changes] Project $project, #[MapRequestPayload] FeaturesRequest $request, Desk $desk): JsonResponse
    {
        $this->work->features($project, $request->file);
        $this->work->place($project, $this->work->references($project, $request)[0], $request);

        return new JsonResponse($desk->start($project, FeaturesHandler::kind(), 'Correct rover features', (array) $request), 202);
    }

    #[Route('/{file'.Id::NUMBER.'}', methods: 'GET')]
    public function rows(#[Reads] Project $project, int $file): JsonResponse
    {
        return new JsonResponse(['rows' => $this->store->getJson($this->result($project, $file)->output)['rows']]);
    }

    #[Route('/{file'.Id::NUMBER.'}/geojson', methods: 'GET')]
    public function geojson(#[Reads] Project $project, int $file): Response
    {
        $result = $this->result($project, $file);
        $rows = $this->store->getJson($result->output)['rows'];

        return Download::text(
            CorrectedFeatures::write((string) $result->summary['name'], $rows), 'corrected-features.geojson', 'application/geo+json',
        );
    }

    /** @param list<string> $stale */
    private function file(Project $project, SurveyFile $f, ?Result $result, array $stale): FeatureFileView
    {
        $features = $this->work->features($project, $f->id());
        $s = $result->summary ?? [];

        return new FeatureFileView(
            $f->id(), $f->name(), $features->name, array_map(
                static fn ($t): float => $t->sinceEpoch(), $features->times(),
            ), $features->rinex,
            FeatureCorrection::BANDS, null !== $result, \count($features->features), (int) ($s['corrected'] ?? 0),
            (int) ($s['positions'] ?? 0),
            (int) ($s['covered'] ?? 0), $s['before'] ?? [], $s['after'] ?? [], $result->output ?? '', $stale,
        );
    }

    private function result(Project $project, int $file): Result
    {
        return $this->results->current($project)[Slots::FEATURES.$file] ?? throw new NotFoundHttpException(
            'These features are not corrected yet.',
        );
    }
}
