<?php

declare(strict_types=1);

namespace App\Network;

use App\Job\JobContext;
use App\Job\JobHandler;
use App\Network\View\ScreenedView;
use Mensura\Network\Adjustment;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;

/** Screening proposes; nothing is set aside until someone accepts the proposal. */
final class ScreenHandler implements JobHandler
{
    public function __construct(private readonly NetworkAssembly $assembly)
    {
    }

    public static function kind(): string
    {
        return 'screen';
    }

    public function run(JobContext $context): void
    {
        [$network, $ids] = $this->assembly->of($context->project);
        $limit = (float) ($context->payload['limit'] ?? Adjustment::CRITICAL);
        $result = (new Adjustment($network, NetworkSettings::of($context->project)->free, false, $context->report(...)))->run(
            $limit,
            isset($context->payload['most']) ? (int) $context->payload['most'] : null,
        );
        $proposals = [];
        foreach ($result->aside as $entry) {
            $o = $network->observations[$entry['index']];
            $proposals[] = new ScreenedView(
                $ids[$entry['index']], $entry['component'] ?? null, $entry['pass'], $entry['standardized'],
                self::words($o, $entry['component'] ?? ''),
            );
        }
        $context->outcome([
            'proposals' => $proposals, 'varianceFactor' => $result->varianceFactor,
            'passed' => $result->globalTest['passed'] ?? null,
        ]);
    }

    private static function words(Observation $o, string $component): string
    {
        $kind = ObservationKind::Vector === $o->kind ? 'vector '.$component : $o->kind->value;

        return \sprintf('%s %s to %s', $kind, $o->from.('' === (string) $o->set ? '' : '/'.$o->set), $o->to);
    }
}
