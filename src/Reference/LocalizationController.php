<?php

declare(strict_types=1);

namespace App\Reference;

use App\Ledger\Ledger;
use App\Project\Project;
use App\Project\ProjectAccess;
use App\Reference\Request\LocalizationRequest;
use App\Reference\View\FitView;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Localization\Choices;
use Mensura\Reference\Localization\Fit;
use Mensura\Reference\Localization\Fitter;
use Mensura\Reference\Localization\LocalizationJson;
use Mensura\Reference\Localization\Pair;
use Mensura\Reference\Localization\UnusablePairs;
use Mensura\Reference\Text\LocalizationWkt;
use Mensura\Reference\UnsupportedMethod;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Localizations: fitting while pairs are typed, keeping, sharing, applying. */
#[Route('/api/projects/{id<\d+>}/reference/localizations')]
final class LocalizationController
{
    private const FARTHEST_LISTED = 200;

    public function __construct(
        private readonly ProjectAccess $access,
        private readonly Connection $connection,
        private readonly ProjectReference $references,
        private readonly Ledger $ledger,
    ) {
    }

    #[Route('/fit', methods: 'POST')]
    public function fit(int $id, #[MapRequestPayload] LocalizationRequest $request): JsonResponse
    {
        $this->access->read($id);
        [$fit, $pairs] = $this->fitted($request);

        return new JsonResponse($this->view($id, $fit, $pairs));
    }

    #[Route('', methods: 'POST')]
    public function keep(int $id, #[MapRequestPayload] LocalizationRequest $request): JsonResponse
    {
        $project = $this->access->change($id);
        if ('' === trim($request->name)) {
            throw new UnusableInput('/name', 'give the localization a name');
        }
        if ('' === $request->system) {
            throw new UnusableInput('/system', 'say which system the grid is in');
        }
        $this->references->projected($id, $request->system);
        $heights = $request->heights;
        if ('geoid' === $heights) {
            $this->references->geoid($id, $request->geoid);
            $heights = 'geoid|'.$request->geoid;
        }
        [$fit, $pairs] = $this->fitted($request);
        $file = LocalizationJson::toArray(trim($request->name), $request->system, $heights, $fit->localization, self::choices($request), $pairs, $fit);
        $text = json_encode($file, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE | \JSON_PRETTY_PRINT);

        return new JsonResponse(['id' => $this->store($project, trim($request->name), $text, \sprintf('Fitted the localization %s: %d pairs, %s', trim($request->name), \count($pairs), null === $fit->sigma ? 'no redundancy' : \sprintf('standard deviation %.4f m', $fit->sigma)))], 201);
    }

    /** A localization file shared by somebody else. */
    #[Route('/import', methods: 'POST')]
    public function import(int $id, Request $request): JsonResponse
    {
        $project = $this->access->change($id);
        $text = $request->getContent();
        try {
            $file = LocalizationJson::read($text);
        } catch (UnusablePairs $e) {
            throw new UnusableInput('', $e->getMessage());
        }
        $this->references->projected($id, $file['system']);

        return new JsonResponse(['id' => $this->store($project, mb_substr($file['name'], 0, 160), $text, 'Imported the localization '.$file['name'])], 201);
    }

    #[Route('/{localization<\d+>}/apply', methods: 'POST')]
    public function apply(int $id, int $localization): JsonResponse
    {
        $project = $this->access->change($id);

        return new JsonResponse(['seq' => $this->ledger->carryOut($project, $this->access->user()->name(), new ApplyLocalization($this->connection, $this->references, $localization))]);
    }

    #[Route('/{localization<\d+>}.{format<json|wkt>}', methods: 'GET')]
    public function download(int $id, int $localization, string $format): Response
    {
        $this->access->read($id);
        $row = $this->connection->fetchAssociative('SELECT name, file FROM localization WHERE id = ? AND project_id = ?', [$localization, $id]);
        if (false === $row) {
            throw new NotFoundHttpException('There is no such localization in this project.');
        }
        $text = (string) $row['file'];
        if ('wkt' === $format) {
            $file = LocalizationJson::read($text);
            try {
                $text = LocalizationWkt::write((string) $row['name'], $this->references->projected($id, $file['system']), $file['localization']);
            } catch (UnsupportedMethod $e) {
                throw new UnusableInput('', $e->getMessage());
            }
        }
        $name = preg_replace('/[^A-Za-z0-9._-]/', '_', (string) $row['name']).'.'.$format;

        return new Response($text, 200, ['Content-Type' => 'json' === $format ? 'application/json' : 'text/plain; charset=utf-8', 'Content-Disposition' => HeaderUtils::makeDisposition(HeaderUtils::DISPOSITION_ATTACHMENT, $name)]);
    }

    private function store(Project $project, string $name, string $file, string $title): int
    {
        $keep = new KeepRow($this->connection, 'localization', 'localization', $title, ['name' => $name, 'file' => $file]);
        $this->ledger->carryOut($project, $this->access->user()->name(), $keep);

        return $keep->id();
    }

    /** @return array{Fit, list<Pair>} */
    private function fitted(LocalizationRequest $request): array
    {
        $pairs = [];
        foreach ($request->pairs as $i => $p) {
            foreach (['localE', 'localN', 'gridE', 'gridN'] as $key) {
                if (!\is_int($p[$key] ?? null) && !\is_float($p[$key] ?? null)) {
                    throw new UnusableInput("/pairs/$i/$key", 'is not a number');
                }
            }
            foreach (['localH', 'gridH'] as $key) {
                if (isset($p[$key]) && !\is_int($p[$key]) && !\is_float($p[$key])) {
                    throw new UnusableInput("/pairs/$i/$key", 'is not a number');
                }
            }
            $name = $p['name'] ?? null;
            $pairs[] = new Pair(\is_string($name) || \is_int($name) ? (string) $name : 'pair '.($i + 1), (float) $p['localE'], (float) $p['localN'], isset($p['localH']) ? (float) $p['localH'] : null, (float) $p['gridE'], (float) $p['gridN'], isset($p['gridH']) ? (float) $p['gridH'] : null, (bool) ($p['horizontal'] ?? true), (bool) ($p['vertical'] ?? true));
        }
        try {
            return [Fitter::fit($pairs, self::choices($request)), $pairs];
        } catch (UnusablePairs $e) {
            throw new UnusableInput('/pairs', $e->getMessage());
        }
    }

    private static function choices(LocalizationRequest $r): Choices
    {
        return new Choices($r->shiftE, $r->shiftN, $r->rotation, $r->scale, $r->vertical);
    }

    /** @param list<Pair> $pairs */
    private function view(int $project, Fit $fit, array $pairs): FitView
    {
        $l = $fit->localization;
        $rows = [];
        foreach ($fit->rows as $i => $row) {
            $rows[] = [
                'name' => $row['name'], 'e' => $row['e'], 'n' => $row['n'], 'h' => $row['h'], 'horizontal' => $row['horizontal'], 'standardized' => $row['standardized'], 'standardizedH' => $row['standardizedH'],
                'withoutE' => $row['without']['e'] ?? null, 'withoutN' => $row['without']['n'] ?? null, 'withoutH' => $row['without']['h'] ?? null, 'gridE' => $pairs[$i]->gridE, 'gridN' => $pairs[$i]->gridN,
            ];
        }
        $outside = [];
        foreach ($this->connection->fetchAllAssociative("SELECT name, e, n FROM point WHERE project_id = ? AND known = 'local' AND e IS NOT NULL AND n IS NOT NULL", [$project]) as $p) {
            $distance = $fit->outside((float) $p['e'], (float) $p['n']);
            if ($distance > 0.001) {
                $outside[] = ['name' => (string) $p['name'], 'distance' => $distance];
            }
        }
        usort($outside, static fn (array $a, array $b): int => $b['distance'] <=> $a['distance']);

        return new FitView(
            ['shiftE' => $l->shiftE, 'shiftN' => $l->shiftN, 'rotation' => $l->rotationDegrees, 'scale' => $l->scale, 'centreE' => $l->centreE, 'centreN' => $l->centreN, 'a' => $l->plane[0], 'b' => $l->plane[1], 'c' => $l->plane[2]],
            $fit->sd, $rows, $fit->sigma, $fit->sigmaH, $fit->redundancy, $fit->redundancyH, $fit->suspect, array_map(static fn (array $p): array => $l->toGrid($p[0], $p[1]), $fit->hull), \array_slice($outside, 0, self::FARTHEST_LISTED),
        );
    }
}
