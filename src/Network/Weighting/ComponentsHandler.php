<?php

declare(strict_types=1);

namespace App\Network\Weighting;

use App\Job\JobContext;
use App\Job\JobHandler;
use App\Network\NetworkAssembly;
use App\Network\NetworkSettings;
use App\Network\View\ComponentView;
use Mensura\Network\Adjustment;
use Mensura\Network\VarianceComponents;
use Mensura\Observation\Observation;

/** Proposes weights from the residuals of groups and shows what they would do; nothing is changed until they are taken. */
final class ComponentsHandler implements JobHandler
{
    public function __construct(private readonly NetworkAssembly $assembly)
    {
    }

    public static function kind(): string
    {
        return 'variance-components';
    }

    public function run(JobContext $context): void
    {
        [$network] = $this->assembly->of($context->project);
        $settings = NetworkSettings::of($context->project);
        $by = Groups::BY_SETUP === ($context->payload['by'] ?? '') ? Groups::setup(...) : Groups::kind(...);
        $groups = array_map(static fn (Observation $o): string => $by($o), $network->observations);
        $before = (new Adjustment($network, $settings->free))->run();
        [$found, $after] = VarianceComponents::of($network, $groups, $settings->free, $context->report(...));
        $views = [];
        foreach ($found as $group => ['factor' => $factor, 'count' => $count, 'redundancy' => $redundancy]) {
            $present = $settings->factors[$group] ?? 1.0;
            $views[] = new ComponentView($group, $count, $redundancy, $present, $present * $factor);
        }
        $largest = 0.0;
        $where = null;
        foreach ($after->stations as $k => $s) {
            $b = $before->stations[$k];
            $move = sqrt(
                ((float) $s['e'] - (float) $b['e']) ** 2 + ((float) $s['n'] - (float) $b['n']) ** 2
                    + ((float) $s['h'] - (float) $b['h']) ** 2,
            );
            if ($move > $largest) {
                [$largest, $where] = [$move, $s['id']];
            }
        }
        $flagged = static fn (array $rows): int => \count(array_filter(
            $rows, static fn (array $r): bool => $r['flagged'] && 'full' === $r['use'],
        ));
        $context->outcome([
            'components' => $views, 'before' => $before->varianceFactor, 'after' => $after->varianceFactor, 'largestMove' => $largest,
            'largestMoveAt' => $where, 'flaggedBefore' => $flagged($before->observations), 'flaggedAfter' => $flagged($after->observations),
        ]);
    }
}
