<?php

declare(strict_types=1);

namespace App\Reference;

use App\Api\Download;
use App\Api\Id;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Reference\Request\LocalizationRequest;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Localization\LocalizationJson;
use Mensura\Reference\Localization\UnusablePairs;
use Mensura\Reference\Text\LocalizationWkt;
use Mensura\Reference\UnsupportedMethod;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Localizations: fitting while pairs are typed, keeping, sharing, applying. */
#[Route(Id::PROJECT.'/reference/localizations')]
final class LocalizationController
{
    private const LONGEST_NAME = 160;

    public function __construct(
        private readonly ProjectReference $references,
        private readonly LocalizationFits $fits,
        private readonly Localizations $localizations,
        private readonly ReferenceOperations $operations,
        private readonly Desk $desk,
    ) {
    }

    #[Route('/fit', methods: 'POST')]
    public function fit(#[Reads] Project $project, #[MapRequestPayload] LocalizationRequest $request): JsonResponse
    {
        [$fit, $pairs] = $this->fits->fit($request);

        return new JsonResponse($this->fits->view($project, $fit, $pairs));
    }

    #[Route('', methods: 'POST')]
    public function keep(#[Changes] Project $project, #[MapRequestPayload] LocalizationRequest $request): JsonResponse
    {
        $name = trim($request->name);
        if ('' === $name) {
            throw new UnusableInput('/name', 'give the localization a name');
        }
        if ('' === $request->system) {
            throw new UnusableInput('/system', 'say which system the grid is in');
        }
        $this->references->projected($project->id(), $request->system);
        $heights = $request->heights;
        if ('geoid' === $heights) {
            $this->references->geoid($project->id(), $request->geoid);
            $heights = 'geoid|'.$request->geoid;
        }
        [$fit, $pairs] = $this->fits->fit($request);
        $how = null === $fit->sigma ? 'no redundancy' : \sprintf('standard deviation %.4f m', $fit->sigma);
        $title = \sprintf('Fitted the localization %s: %d pairs, %s', $name, \count($pairs), $how);

        return $this->store($project, $name, LocalizationFits::file($request, $heights, $fit, $pairs), $title);
    }

    /** A localization file shared by somebody else; what cannot be used later is refused now. */
    #[Route('/import', methods: 'POST')]
    public function import(#[Changes] Project $project, Request $request): JsonResponse
    {
        $text = $request->getContent();
        try {
            $file = LocalizationJson::read($text);
        } catch (UnusablePairs $e) {
            throw new UnusableInput('', $e->getMessage());
        }
        $this->references->projected($project->id(), $file['system']);
        [$kind, $geoid] = explode('|', $file['heights'], 2) + [1 => ''];
        if (!\in_array($kind, ['ellipsoidal', 'geoid'], true) || ('geoid' === $kind) !== ('' !== $geoid)) {
            throw new UnusableInput('/grid/heights', 'are "ellipsoidal", or "geoid|" and the geoid');
        }

        return $this->store($project, mb_substr($file['name'], 0, self::LONGEST_NAME), $text, 'Imported the localization '.$file['name']);
    }

    #[Route('/{localization'.Id::NUMBER.'}/apply', methods: 'POST')]
    public function apply(#[Changes] Project $project, int $localization, PointRepository $points): JsonResponse
    {
        if ($points->count(['project' => $project->id()]) > MoveHandler::MOST_AT_ONCE) {
            $payload = ['localization' => $localization];

            return new JsonResponse($this->desk->start($project, MoveHandler::kind(), 'Apply the localization', $payload), 202);
        }

        return new JsonResponse($this->desk->carryOut($project, $this->operations->apply($localization)));
    }

    #[Route('/{localization'.Id::NUMBER.'}.{format<json|wkt>}', methods: 'GET')]
    public function download(#[Reads] Project $project, int $localization, string $format, LocalizationRepository $kept): Response
    {
        $row = $kept->in($project, $localization) ?? throw new NotFoundHttpException('There is no such localization in this project.');
        $name = preg_replace('/[^A-Za-z0-9._-]/', '_', $row->name).'.'.$format;
        if ('json' === $format) {
            return Download::text($row->file, $name, 'application/json');
        }
        $read = $this->localizations->read($project, $localization);
        try {
            $text = LocalizationWkt::write($row->name, $this->references->projected($project->id(), $read->system), $read->localization);
        } catch (UnsupportedMethod $e) {
            throw new UnusableInput('', $e->getMessage());
        }

        return Download::text($text, $name, 'text/plain; charset=utf-8');
    }

    private function store(Project $project, string $name, string $file, string $title): JsonResponse
    {
        $keep = $this->operations->keepLocalization($name, $file, $title);
        $this->desk->carryOut($project, $keep);

        return new JsonResponse(['id' => $keep->id()], 201);
    }
}
