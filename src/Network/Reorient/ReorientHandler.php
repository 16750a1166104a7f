<?php

declare(strict_types=1);

namespace App\Network\Reorient;

use App\Job\JobContext;
use App\Job\JobHandler;
use App\Ledger\Ledger;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;

/** Works a re-orientation out, and carries it out when it is asked to. */
final readonly class ReorientHandler implements JobHandler
{
    /** No coordinate on this planet is larger, metres. */
    private const FARTHEST = 1e8;

    public function __construct(private Reorientation $reorientation, private PointRepository $points, private Ledger $ledger)
    {
    }

    public static function kind(): string
    {
        return 'reorient';
    }

    public function run(JobContext $context): void
    {
        $control = [];
        $sent = $context->payload['control'] ?? [];
        foreach (\is_array($sent) ? array_values($sent) : [] as $i => $row) {
            if (!\is_array($row) || !\is_string($row['point'] ?? null)) {
                throw new UnusableInput("/control/$i/point", 'is the name of a control mark');
            }
            $values = [];
            foreach (['e', 'n', 'h'] as $c) {
                $value = $row[$c] ?? null;
                if (null !== $value && !\is_int($value) && !\is_float($value) || abs((float) $value) > self::FARTHEST) {
                    throw new UnusableInput("/control/$i/$c", \sprintf('the %s of %s is a number of metres', $c, $row['point']));
                }
                $values[$c] = null === $value ? null : (float) $value;
            }
            $control[] = ['point' => $row['point'], 'e' => $values['e'], 'n' => $values['n'], 'h' => $values['h']];
        }
        [$turns, $moves, $places] = $this->reorientation->of($context->project, $control, $context->report(...));
        if (true === ($context->payload['apply'] ?? false)) {
            $reason = (string) ($context->payload['reason'] ?? '');
            $this->ledger->carryOut(
                $context->project, $context->authorName, new Reorient($this->points, $control, $places, $reason),
                $context->jobId,
            );
        }
        $context->outcome(['turns' => $turns, 'moves' => $moves]);
    }
}
