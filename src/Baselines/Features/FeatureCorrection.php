<?php

declare(strict_types=1);

namespace App\Baselines\Features;

use App\Baselines\MarkPlace;
use App\Baselines\Request\FeaturesRequest;
use App\Baselines\Slots;
use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Recompute;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Exchange\RoverFeatures\RoverFeature;
use Mensura\Exchange\RoverFeatures\RoverFeatures;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Gnss\Horizon;
use Mensura\Gnss\VertexMean;

/** Corrects the features of a mapping rover, and says what each is worth before and after. */
final class FeatureCorrection implements Recompute
{
    /** Upper ends of the bands of accuracy, metres in plan; what is worse than the last is in a band of its own. */
    public const BANDS = [0.02, 0.05, 0.15, 0.5, 1.0, 2.0, 5.0];

    public function __construct(
        private readonly FeatureWork $work,
        private readonly MarkPlace $places,
        private readonly FileStore $store,
        private readonly Results $results,
        private readonly Ledger $ledger,
    ) {
    }

    public static function kind(): string
    {
        return 'features';
    }

    public function again(JobContext $context, Result $newest): void
    {
        $this->make($context->project, $context->authorName, self::request($newest->settings), $context->report(...));
    }

    /** @param array<string, mixed> $kept */
    public static function request(array $kept): FeaturesRequest
    {
        $number = static fn (string $key): ?float => isset($kept[$key]) ? (float) $kept[$key] : null;

        return new FeaturesRequest(
            (int) $kept['file'], array_values(
                array_map(intval(...), (array) $kept['references']),
            ), (string) $kept['position'], (string) $kept['mark'],
            $number('e'), $number('n'), $number('h'),
        );
    }

    /** @param \Closure(string, float): void $progress */
    public function make(Project $project, string $authorName, FeaturesRequest $r, \Closure $progress, ?string $jobId = null): void
    {
        $progress('reading', 0.05);
        $contents = [...array_map(static fn (int $id): string => 'occupation:'.$id, $r->references), 'orbits'];
        [$basis, [$features, $epochs]] = $this->results->reading(
            $project, $contents, [], function (Project $project) use ($r, $progress): array {
                $features = $this->work->features($project, $r->file);

                return [$features, $this->work->epochs($project, $features, $r, $progress)];
            },
        );
        $document = $this->document($project, $features, $epochs);
        $outcome = new Outcome(
            Slots::FEATURES.$r->file, self::kind(), 'Corrected features '.$features->name, $basis, (array) $r, $document['summary'],
            $this->store->putJson($document),
        );
        $this->ledger->carryOut($project, $authorName, new RecordFeatures($this->results, $outcome), $jobId);
    }

    /**
     * @param array<string, array{position: array{float, float, float}, covariance: list<list<float>>, solution: string}> $epochs
     *
     * @return array<string, mixed>
     */
    private function document(Project $project, RoverFeatures $features, array $epochs): array
    {
        $rows = [];
        $before = $after = array_fill(0, \count(self::BANDS) + 1, 0);
        $covered = $positions = 0;
        foreach ($features->features as $i => $feature) {
            $row = $this->row($project, $feature, $i, $epochs, $covered, $positions);
            ++$before[self::band($row['before'])];
            if (null !== $row['sdPlan']) {
                ++$after[self::band($row['sdPlan'])];
            }
            $rows[] = $row;
        }
        $corrected = \count(array_filter($rows, static fn (array $row): bool => null !== $row['sdPlan']));

        return [
            'summary' => [
                'name' => $features->name, 'features' => \count($rows), 'corrected' => $corrected, 'positions' => $positions,
                'covered' => $covered,
                'before' => $before, 'after' => $after,
            ],
            'rows' => $rows,
        ];
    }

    /**
     * @param array<string, array{position: array{float, float, float}, covariance: list<list<float>>, solution: string}> $epochs
     *
     * @return array<string, mixed>
     */
    private function row(Project $project, RoverFeature $feature, int $i, array $epochs, int &$covered, int &$positions): array
    {
        $vertices = [];
        $plan = $up = $moved = null;
        $solutions = [];
        $sd = 0.0;
        $collected = $used = 0;
        for ($v = 0; $v < $feature->vertices; ++$v) {
            $own = array_values(array_filter($feature->positions, static fn ($p): bool => $p->vertex === $v));
            $hits = [];
            $sum = [0.0, 0.0, 0.0];
            foreach ($own as $p) {
                $place = Ellipsoid::wgs84()->toCartesian(deg2rad($p->lat), deg2rad($p->lon), $p->h);
                for ($c = 0; $c < 3; ++$c) {
                    $sum[$c] += $place[$c] / \count($own);
                }
                $sd = max($sd, $p->sd);
                ++$collected;
                if (isset($epochs[FeatureWork::key($p->time)])) {
                    $hits[] = $epochs[FeatureWork::key($p->time)];
                }
            }
            if ([] === $own) {
                continue;
            }
            $used += \count($hits);
            $raw = $this->places->inProject($project, [$sum[0], $sum[1], $sum[2]]);
            $mean = VertexMean::of($hits);
            $grid = null === $mean ? null : $this->places->inProject($project, $mean->place);
            $vertex = [
                'rawE' => $raw[0] ?? null, 'rawN' => $raw[1] ?? null, 'rawH' => $raw[2] ?? null, 'e' => null, 'n' => null, 'h' => null,
                'lat' => null, 'lon' => null, 'ellipsoidal' => null,
            ];
            if (null !== $mean && null !== $grid) {
                $horizon = Horizon::of($mean->place);
                $q = $horizon->turned($mean->covariance);
                $plan = max($plan ?? 0.0, sqrt($q[0][0] + $q[1][1]));
                $up = max($up ?? 0.0, sqrt($q[2][2]));
                $moved = max($moved ?? 0.0, Horizon::distance($mean->place, [$sum[0], $sum[1], $sum[2]]));
                $solutions[] = $mean->solution;
                $vertex = [
                    'e' => $grid[0], 'n' => $grid[1], 'h' => $grid[2], 'lat' => rad2deg($horizon->latitude),
                    'lon' => rad2deg($horizon->longitude), 'ellipsoidal' => $horizon->height,
                ] + $vertex;
            } else {
                $plan = null; // a vertex that is not corrected leaves the feature as it was
                $vertices[] = $vertex;
                $solutions = [];
                break;
            }
            $vertices[] = $vertex;
        }
        $covered += $used;
        $positions += $collected;

        return [
            'id' => '' === $feature->id ? (string) ($i + 1) : $feature->id, 'kind' => $feature->kind, 'code' => $feature->code,
            'attributes' => $feature->attributes,
            'vertices' => $vertices, 'positions' => $collected, 'used' => $used, 'before' => $sd,
            'sdPlan' => [] === $solutions ? null : $plan,
            'sdUp' => [] === $solutions ? null : $up, 'moved' => [] === $solutions ? null : $moved, 'solution' => self::weakest($solutions),
        ];
    }

    /** @param list<string> $solutions */
    private static function weakest(array $solutions): string
    {
        foreach (['code', 'float', 'fixed'] as $s) {
            if (\in_array($s, $solutions, true)) {
                return $s;
            }
        }

        return '';
    }

    private static function band(float $sd): int
    {
        foreach (self::BANDS as $k => $end) {
            if ($sd <= $end) {
                return $k;
            }
        }

        return \count(self::BANDS);
    }
}
