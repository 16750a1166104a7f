<?php

declare(strict_types=1);

namespace App\Terrain\Section;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Recompute;
use App\Result\RecordNumbered;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\AcceptedCoordinates;
use App\Survey\PointRepository;
use App\Survey\PointRow;
use Mensura\Exchange\MeshBytes\MeshCodec;
use Mensura\Fault\UnusableInput;
use Mensura\Section\SectionLine;
use Mensura\Section\SurfaceSection;

/** Cuts surfaces along a line and keeps the drawing: profile, points beside it, cross-sections. */
final class SectionMaker implements Recompute
{
    public const PREFIX = 'section:';
    private const MOST_CROSSES = 1000;

    public function __construct(
        private readonly AlignmentFiles $alignments,
        private readonly PointRepository $points,
        private readonly FileStore $store,
        private readonly Results $results,
        private readonly Ledger $ledger,
    ) {
    }

    public static function kind(): string
    {
        return 'section';
    }

    public function again(JobContext $context, Result $newest): void
    {
        $settings = SectionSettings::fromArray($newest->settings);
        $this->make($context->project, $context->authorName, $newest->number(), $settings, $context->report(...));
    }

    /**
     * @param ?int                           $number   of the section that is cut anew; null for a new one
     * @param ?\Closure(string, float): void $progress
     *
     * @return int number it is kept under
     */
    public function make(
        Project $project, string $authorName, ?int $number, SectionSettings $settings, ?\Closure $progress = null, ?string $jobId = null,
    ): int {
        $report = $progress ?? static function (string $stage, float $fraction): void {};
        $report('surfaces', 0.05);
        $hasPoints = $settings->offset > 0.0;
        $slots = $hasPoints ? [...$settings->slots(), AcceptedCoordinates::SLOT] : $settings->slots();
        [$basis, [$surfaces, $rows]] = $this->results->reading(
            $project, $hasPoints ? ['points'] : [], $slots,
            fn (Project $project): array => [
                $this->surfaces($project, $settings), $hasPoints ? iterator_to_array($this->points->onGrid($project), false) : [],
            ],
        );
        [$line, $start] = $this->line($project, $settings);
        $crosses = self::stations($line->length, $start, $settings->every);
        $document = [
            'start' => $start, 'e' => $line->x, 'n' => $line->y, 'stations' => $line->stations, 'surfaces' => [],
            'points' => self::near($line, $rows, $settings->offset),
            'crosses' => array_map(static function (float $s) use ($line, $settings, $start): array {
                $across = $line->across($s, $settings->half);

                return ['station' => $start + $s, 'e' => $across->x, 'n' => $across->y, 'surfaces' => []];
            }, $crosses),
        ];
        $low = $high = null;
        foreach ($surfaces as $k => [$name, $output]) {
            $report($name, 0.1 + 0.8 * $k / \count($surfaces));
            $cut = new SurfaceSection(MeshCodec::decode($this->store->get($output)));
            $pieces = $cut->along($line);
            $document['surfaces'][] = ['name' => $name, 'pieces' => $pieces];
            foreach ($pieces as $piece) {
                $low = min($low ?? \INF, ...array_column($piece, 1));
                $high = max($high ?? -\INF, ...array_column($piece, 1));
            }
            foreach ($crosses as $i => $s) {
                $document['crosses'][$i]['surfaces'][] = array_map(
                    static fn (array $piece): array => array_map(static fn (array $v): array => [$v[0] - $settings->half, $v[1]], $piece),
                    $cut->along($line->across($s, $settings->half)),
                );
            }
        }
        $report('keeping', 0.95);
        $summary = [
            'name' => $settings->name, 'length' => $line->length, 'start' => $start, 'low' => $low, 'high' => $high,
            'points' => \count($document['points']), 'crosses' => \count($crosses),
        ];
        $outcome = new Outcome(
            self::PREFIX.$number, self::kind(), 'Section '.$settings->name, $basis, (array) $settings, $summary,
            $this->store->putJson($document),
        );
        $title = \sprintf('Section %s: %d surfaces over %.1f m', $settings->name, \count($surfaces), $line->length);
        $record = new RecordNumbered($this->results, $outcome, 'cut-section', $title, 'section');
        $this->ledger->carryOut($project, $authorName, $record, $jobId);

        return $record->number;
    }

    /** @return array{SectionLine, float} and the station it begins with */
    private function line(Project $project, SectionSettings $settings): array
    {
        if (0 === $settings->file) {
            return [new SectionLine(array_column($settings->line, 0), array_column($settings->line, 1)), 0.0];
        }
        $alignment = $this->alignments->alignment($project, $settings->file, $settings->alignment);

        return [$alignment->chords(), $alignment->start];
    }

    /**
     * @return list<array{string, string}> name and mesh
     *
     * @throws UnusableInput
     */
    private function surfaces(Project $project, SectionSettings $settings): array
    {
        $current = $this->results->current($project);
        $stale = $this->results->stale($project);
        $surfaces = [];
        foreach ($settings->slots() as $i => $slot) {
            $result = $current[$slot] ?? throw new UnusableInput("/surfaces/$i", 'is not computed; compute the surface first');
            if (isset($stale[$slot])) {
                throw new UnusableInput("/surfaces/$i", 'is stale; recompute the surface first');
            }
            $surfaces[] = [preg_replace('/^Surface /', '', $result->label) ?? $result->label, $result->output];
        }

        return $surfaces;
    }

    /**
     * @param list<PointRow> $rows
     *
     * @return list<array{name: string, station: float, offset: float, h: float}> in the order of the way
     */
    private static function near(SectionLine $line, array $rows, float $offset): array
    {
        $near = [];
        foreach ($rows as $p) {
            $foot = null === $p->h ? null : $line->foot((float) $p->e, (float) $p->n, $offset);
            if (null !== $foot) {
                $near[] = ['name' => $p->name, 'station' => $foot[0], 'offset' => $foot[1], 'h' => (float) $p->h];
            }
        }
        usort($near, static fn (array $a, array $b): int => $a['station'] <=> $b['station']);

        return $near;
    }

    /**
     * Lengths from the begin at which the stations are multiples.
     *
     * @return list<float>
     *
     * @throws UnusableInput more than anyone looks through
     */
    private static function stations(float $length, float $start, float $every): array
    {
        if (!($every > 0.0)) {
            return [];
        }
        if ($length / $every > self::MOST_CROSSES) {
            throw new UnusableInput('/every', \sprintf(
                'cross-sections every %s m are %.0f; at most %d are cut', json_encode($every), $length / $every, self::MOST_CROSSES,
            ));
        }
        $stations = [];
        for ($k = (int) ceil($start / $every - 1e-9); $k * $every - $start <= $length + 1e-9; ++$k) {
            $stations[] = max(0.0, min($length, $k * $every - $start));
        }

        return $stations;
    }
}
