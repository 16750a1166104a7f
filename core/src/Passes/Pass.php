<?php

declare(strict_types=1);

namespace Mensura\Passes;

/** One drive: where the vehicle was and what its scanner saw. */
final readonly class Pass
{
    /**
     * @param ?\Closure(): iterable<array{list<float>, list<float>, list<float>, list<float>}> $points time, e, n, h of what was scanned,
     *                                                                                                many at once; null without a scan
     * @param array{float, float, float} $preShift from a picked pair, good to some decimetres
     */
    public function __construct(
        public string $id, public Trajectory $trajectory, public ?\Closure $points = null, public array $preShift = [0.0, 0.0, 0.0],
    ) {
    }
}
