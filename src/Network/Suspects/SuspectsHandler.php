<?php

declare(strict_types=1);

namespace App\Network\Suspects;

use App\Job\JobContext;
use App\Job\JobHandler;
use App\Network\NetworkAssembly;
use App\Network\NetworkSettings;
use App\Network\View\ShiftView;
use App\Network\View\SuspectRowView;
use App\Network\View\SuspectView;
use Mensura\Fault\UnusableInput;
use Mensura\Network\Adjustment;
use Mensura\Network\AdjustmentResult;
use Mensura\Network\NetworkDefinition;
use Mensura\Network\Suspects\Suspect;
use Mensura\Network\Suspects\SuspectSearch;

/** Looks for what could have gone wrong in the field; nothing is changed until someone accepts a cause. */
final class SuspectsHandler implements JobHandler
{
    /** Causes that are listed, and of them those that are solved to show residuals and moves with them. */
    private const LISTED = 10;
    private const SOLVED = 5;

    private const ROWS = 8;

    /** Below this a cause is as good as chance among so many tried. */
    private const WORTH = 3.0;

    public function __construct(private readonly NetworkAssembly $assembly)
    {
    }

    public static function kind(): string
    {
        return 'suspects';
    }

    public function run(JobContext $context): void
    {
        [$network, $ids] = $this->assembly->of($context->project);
        $free = NetworkSettings::of($context->project)->free;
        $adjustment = new Adjustment($network, $free, false, $context->report(...));
        $result = $adjustment->run();
        $search = new SuspectSearch($adjustment->solved($result), $context->report(...));
        $views = [];
        foreach ($search->best(self::LISTED) as $k => $suspect) {
            if (abs($suspect->statistic) < self::WORTH && $k > 0) {
                break;
            }
            $views[] = $this->view($suspect, $network, $ids, $result, $free, $k < self::SOLVED);
        }
        $context->outcome([
            'suspects' => $views, 'tried' => $search->tried(), 'varianceFactor' => $result->varianceFactor,
            'passed' => $result->globalTest['passed'] ?? null,
        ]);
    }

    /** @param list<int> $ids */
    private function view(
        Suspect $s,
        NetworkDefinition $network,
        array $ids,
        AdjustmentResult $result,
        bool $free,
        bool $isSolved,
    ): SuspectView {
        $changes = CorrectionOf::changes($s, $network->observations, $ids);
        $after = $isSolved && [] !== $changes ? $this->solvedWith($network, $ids, $changes, $free) : null;
        $rows = null === $after ? [] : self::rows($network, $ids, $result, $after);
        [$moves, $largest, $where] = null === $after ? [[], null, null] : self::moves($result, $after);
        $misfit = ($result->varianceFactor ?? 0.0) * $result->redundancy;
        $expected = $misfit > $result->redundancy ? (float) $result->redundancy : 0.0;
        $left = ($after->varianceFactor ?? $s->varianceFactorAfter ?? 0.0) * $result->redundancy;

        return new SuspectView(
            $s->cause, CauseWords::of($s), CauseWords::quantity($s->cause), $s->estimate, $s->sd, $s->statistic,
            $misfit > $expected ? min(1.0, max(0.0, ($misfit - $left) / ($misfit - $expected))) : 0.0,
            $after->varianceFactor ?? $s->varianceFactorAfter, $s->suggests, array_map(static fn (int $i): int => $ids[$i], $s->touched),
            $changes, isset($s->names['station']) ? (string) $s->names['station'] : null, $rows, $moves, $largest, $where,
        );
    }

    /**
     * @param list<int>                                                     $ids
     * @param list<array{id: int, field: string, add?: float, to?: string}> $changes
     */
    private function solvedWith(NetworkDefinition $network, array $ids, array $changes, bool $free): ?AdjustmentResult
    {
        try {
            $corrected = CorrectionOf::applied($network->observations, $ids, $changes);

            return (new Adjustment(
                new NetworkDefinition($network->frame, $network->settings, $network->stations, $corrected),
                $free,
            ))->run();
        } catch (UnusableInput) {
            return null;
        }
    }

    /**
     * @param list<int> $ids
     *
     * @return list<SuspectRowView> the residuals that change most
     */
    private static function rows(NetworkDefinition $network, array $ids, AdjustmentResult $before, AdjustmentResult $after): array
    {
        $views = [];
        foreach ($before->observations as $k => $row) {
            $with = $after->observations[$k]['standardized'] ?? null;
            if (null === $row['standardized'] || null === $with || 'full' !== $row['use']) {
                continue;
            }
            $o = $network->observations[$row['index']];
            $views[] = new SuspectRowView(
                $ids[$row['index']], $row['component'] ?? null, $row['type'], $o->from.('' === (string) $o->set ? '' : '/'.$o->set), $o->to,
                $row['standardized'], $with,
            );
        }
        usort($views, static fn (SuspectRowView $a, SuspectRowView $b): int => abs($b->before - $b->after) <=> abs($a->before - $a->after));

        return \array_slice($views, 0, self::ROWS);
    }

    /** @return array{list<ShiftView>, ?float, ?string} */
    private static function moves(AdjustmentResult $before, AdjustmentResult $after): array
    {
        $moves = [];
        $largest = $where = null;
        foreach ($after->stations as $k => $s) {
            $b = $before->stations[$k];
            if (null === $s['e'] || null === $b['e']) {
                continue;
            }
            $move = new ShiftView($s['id'], $s['e'] - $b['e'], (float) $s['n'] - (float) $b['n'], (float) $s['h'] - (float) $b['h']);
            $length = sqrt($move->e ** 2 + $move->n ** 2 + $move->h ** 2);
            if (null === $largest || $length > $largest) {
                [$largest, $where] = [$length, $s['id']];
            }
            $moves[] = $move;
        }

        return [$moves, $largest, $where];
    }
}
