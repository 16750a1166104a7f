<?php

declare(strict_types=1);

namespace App\Reference;

use App\Ledger\Ledger;
use App\Project\Project;
use App\Project\ProjectAccess;
use App\Reference\Request\ReferenceRequest;
use App\Reference\View\MovedRow;
use App\Reference\View\MovePreview;
use App\Reference\View\ReferenceView;
use App\Reference\View\SystemHit;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Ground\GridPoint;
use Mensura\Reference\Method\Methods;
use Mensura\Reference\Operation\NoWay;
use Mensura\Reference\OutsideProjection;
use Mensura\Reference\Registry\SystemSearch;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

/**
 * The project's system: finding one, reading about it, seeing what a change would move, changing.
 *
 * @phpstan-import-type Hit from SystemSearch
 */
#[Route('/api')]
final class ReferenceController
{
    private const SHOWN_ROWS = 500;

    public function __construct(
        private readonly ProjectAccess $access,
        private readonly Connection $connection,
        private readonly ProjectReference $references,
        private readonly SystemDescription $descriptions,
        private readonly GridFileList $grids,
        private readonly Ledger $ledger,
        private readonly ClockInterface $clock,
    ) {
    }

    /** For a project not made yet: words only. */
    #[Route('/systems', methods: 'GET')]
    public function anySystem(Request $request): JsonResponse
    {
        $search = new SystemSearch($this->references->registry());

        return new JsonResponse(array_map(static fn (array $hit): SystemHit => self::hit($hit, []), $search->byWords((string) $request->query->get('q'), null, 30, true)));
    }

    #[Route('/projects/{id<\d+>}/reference', methods: 'GET')]
    public function show(int $id): JsonResponse
    {
        $project = $this->access->read($id);
        $system = $this->references->of($project);
        $extent = $this->references->extent($project);
        $counts = $this->connection->fetchNumeric("SELECT COUNT(*), SUM(known = 'local'), AVG(CASE WHEN known = 'global' THEN h END) FROM point WHERE project_id = ? AND e IS NOT NULL", [$id]) ?: [0, 0, null];
        $methods = [];
        foreach (Methods::METHODS as $code => [$name, $parameters]) {
            $methods[] = ['code' => $code, 'name' => $name, 'parameters' => array_map(static fn (int $p): array => ['code' => $p, 'name' => Methods::PARAMETERS[$p], 'kind' => \in_array($p, Methods::LENGTHS, true) ? 'length' : (\in_array($p, Methods::SCALES, true) ? 'scale' : 'angle')], $parameters)];
        }

        return new JsonResponse(new ReferenceView(
            null === $system ? null : $this->descriptions->of($id, $project->reference(), $system, $extent), $project->heights(), $project->geoid(), (int) $counts[0], (int) $counts[1], $extent?->bounds(), null === $counts[2] ? null : (float) $counts[2],
            array_map(static fn (array $r): array => ['id' => (int) $r['id'], 'name' => (string) $r['name']], $this->connection->fetchAllAssociative('SELECT id, name FROM custom_system WHERE project_id = ? ORDER BY name', [$id])),
            $this->grids->of($project, $extent), $this->localizations($id), $methods, $this->references->registry()->version(),
        ));
    }

    #[Route('/projects/{id<\d+>}/reference/systems', methods: 'GET')]
    public function search(int $id, Request $request): JsonResponse
    {
        $project = $this->access->read($id);
        $extent = $this->references->extent($project);
        $text = trim((string) $request->query->get('q'));
        $search = new SystemSearch($this->references->registry());
        $recent = $this->connection->fetchFirstColumn('SELECT code FROM recent_system WHERE user_id = ? ORDER BY used_at DESC LIMIT 8', [$this->access->user()->id()]);
        $hits = [];
        if ('here' === strtolower($text)) {
            if (null === $extent) {
                throw new UnusableInput('/q', 'the project has no points known globally yet, so there is no "here"; bring in control first, or search by words');
            }
            $hits = $this->here($search, $extent, $id);
        } else {
            foreach ('' === $text ? $this->connection->fetchAllAssociative('SELECT id, name FROM custom_system WHERE project_id = ? ORDER BY name', [$id]) : [] as $row) {
                $hits[] = new SystemHit('custom:'.$row['id'], (string) $row['name'], 'projected', 'of this project', 'own system', false, false);
            }
            if ('' === $text) {
                foreach ($recent as $code) {
                    foreach ($search->byWords((string) $code, $extent, 1) as $hit) {
                        $hits[] = self::hit($hit, $recent);
                    }
                }
            }
            $found = array_map(static fn (array $hit): SystemHit => self::hit($hit, $recent), '' !== $text ? $search->byWords($text, $extent) : (null === $extent ? [] : \array_slice($search->covering($extent), 0, 20)));
            usort($found, static fn (SystemHit $a, SystemHit $b): int => $b->recent <=> $a->recent);
            $seen = array_flip(array_map(static fn (SystemHit $h): string => $h->reference, $hits));
            $hits = [...$hits, ...array_values(array_filter($found, static fn (SystemHit $h): bool => !isset($seen[$h->reference])))];
        }

        return new JsonResponse(\array_slice($hits, 0, 50));
    }

    #[Route('/projects/{id<\d+>}/reference/system', methods: 'GET')]
    public function detail(int $id, Request $request): JsonResponse
    {
        $project = $this->access->read($id);
        $reference = (string) $request->query->get('reference');
        $system = $this->references->system($id, $reference) ?? throw new UnusableInput('/reference', 'a plane local system has no definition');

        return new JsonResponse($this->descriptions->of($id, $reference, $system, $this->references->extent($project)));
    }

    #[Route('/projects/{id<\d+>}/reference/preview', methods: 'POST')]
    public function preview(int $id, #[MapRequestPayload] ReferenceRequest $request): JsonResponse
    {
        $project = $this->access->read($id);
        $extent = $this->references->extent($project);
        $from = $this->references->of($project);
        $to = $this->references->system($id, $request->reference);
        $candidates = [];
        if (null !== $from && null !== $to) {
            try {
                $candidates = SystemDescription::candidates($this->references->finder($id)->ways(ProjectReference::spatial($from), ProjectReference::spatial($to), true), $extent);
            } catch (NoWay) {
                // Said by the change itself, below.
            }
        }
        try {
            ['movement' => $movement, 'rows' => $rows, 'local' => $local] = $this->change($request)->preview($project);
        } catch (UnusableInput $e) {
            return new JsonResponse(new MovePreview('', null, [], 0, 0, $candidates, [], $e->reason));
        }
        $route = $movement?->route->describe(null === $extent ? null : deg2rad(($extent->south + $extent->north) / 2.0), null === $extent ? null : deg2rad($extent->west + $extent->width() / 2.0));
        $warnings = $movement->route->warnings ?? [];
        if (null !== $to?->area && null !== $extent && !$to->area->covers($extent)) {
            $warnings[] = \sprintf('the points lie outside the area of use of %s (%s)', $to->label(), $to->area->shortName());
        }
        if (null !== $to && $to->deprecated) {
            $warnings[] = \sprintf('%s is deprecated%s', $to->label(), null === $to->successor ? '' : '; use '.$to->successor);
        }

        return new JsonResponse(new MovePreview(
            null === $route ? 'no coordinates are computed' : $route['operation'], $route['accuracy'] ?? null,
            array_map(static fn (array $r): MovedRow => new MovedRow($r['name'], (float) $r['e'], (float) $r['n'], $r['h'], (float) $r['newE'], (float) $r['newN'], $r['newH'], $r['known']), \array_slice($rows, 0, self::SHOWN_ROWS)),
            \count($rows) - $local, $local, $candidates, array_values(array_unique($warnings)), '',
        ));
    }

    #[Route('/projects/{id<\d+>}/reference', methods: 'PUT')]
    public function state(int $id, #[MapRequestPayload] ReferenceRequest $request): JsonResponse
    {
        $project = $this->access->change($id);
        $seq = $this->ledger->carryOut($project, $this->access->user()->name(), $this->change($request));
        if (str_starts_with($request->reference, 'EPSG:')) {
            $this->connection->executeStatement('INSERT INTO recent_system (user_id, code, used_at) VALUES (?, ?, ?) ON CONFLICT (user_id, code) DO UPDATE SET used_at = excluded.used_at', [$this->access->user()->id(), $request->reference, $this->clock->now()->format('Y-m-d H:i:s')]);
        }

        return new JsonResponse(['seq' => $seq]);
    }

    private function change(ReferenceRequest $request): ChangeReference
    {
        return new ChangeReference($this->connection, $this->references, $request->reference, $request->heights, $request->geoid, '' === $request->operation ? null : $request->operation, $request->epoch);
    }

    /** @return list<SystemHit> systems that cover all points, best first: near way from GNSS, little distortion, small area */
    private function here(SystemSearch $search, Area $extent, int $project): array
    {
        $finder = $this->references->finder($project);
        $wgs = $this->references->registry()->horizontalSystem('EPSG:4326');
        $accuracies = [];
        $ranked = [];
        $lat = deg2rad(($extent->south + $extent->north) / 2.0);
        $lon = deg2rad($extent->west + $extent->width() / 2.0);
        foreach ($search->covering($extent) as $hit) {
            try {
                $system = $this->references->registry()->horizontalSystem($hit['code']);
                if (9824 === $system->conversion?->method) {
                    continue; // a family of zones, not a system to draw in
                }
                $ppm = $this->distortion($system, $lat, $lon);
                $datum = (string) $system->datum->code;
                $accuracies[$datum] ??= $this->accuracy(SystemDescription::candidates($finder->candidates($wgs, $system, false), $extent));
            } catch (\DomainException) {
                continue;
            }
            $accuracy = $accuracies[$datum];
            $hit['why'] = \sprintf('%+.0f ppm at the centre; %s', $ppm, null === $accuracy ? 'no way from GNSS without a missing grid' : (0.0 === $accuracy ? 'the datum of GNSS' : \sprintf('%.3g m from GNSS', $accuracy)));
            $ranked[] = [min(100.0, 20.0 * ($accuracy ?? 5.0)) + abs($ppm) / 20.0 + log(1.0 + 1000.0 * ($hit['area']?->size() ?? 360.0)) * 2.0, self::hit($hit, [])];
        }
        usort($ranked, static fn (array $a, array $b): int => $a[0] <=> $b[0] ?: strcmp($a[1]->reference, $b[1]->reference));

        return array_column(\array_slice($ranked, 0, 40), 1);
    }

    private function distortion(HorizontalSystem $system, float $lat, float $lon): float
    {
        [$e, $n] = $system->fromGeographic($lat, $lon);
        $point = GridPoint::at($system, $e, $n, 0.0);
        if (abs($point->scale - $point->scaleAcross) > 1e-3) {
            throw new OutsideProjection('not conformal, so not for survey work');
        }

        return 1e6 * ($point->scale - 1.0);
    }

    /** @param list<View\CandidateView> $candidates */
    private function accuracy(array $candidates): ?float
    {
        foreach ($candidates as $candidate) {
            if ($candidate->usable && $candidate->covers) {
                return $candidate->accuracy ?? 10.0;
            }
        }

        return null;
    }

    /** @return list<array{id: int, name: string, system: string, pairs: int, vertical: string}> */
    private function localizations(int $project): array
    {
        $list = [];
        foreach ($this->connection->fetchAllAssociative('SELECT id, name, file FROM localization WHERE project_id = ? ORDER BY id DESC', [$project]) as $row) {
            $file = json_decode((string) $row['file'], true, 16, \JSON_THROW_ON_ERROR);
            $list[] = ['id' => (int) $row['id'], 'name' => (string) $row['name'], 'system' => (string) ($file['grid']['system'] ?? ''), 'pairs' => \count($file['pairs'] ?? []), 'vertical' => (string) ($file['vertical']['model'] ?? '')];
        }

        return $list;
    }

    /**
     * @param Hit          $hit
     * @param list<string> $recent
     */
    private static function hit(array $hit, array $recent): SystemHit
    {
        return new SystemHit($hit['code'], $hit['name'], $hit['kind'], $hit['area']->name ?? '', $hit['why'], $hit['deprecated'], \in_array($hit['code'], $recent, true));
    }
}
