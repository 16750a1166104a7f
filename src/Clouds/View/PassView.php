<?php

declare(strict_types=1);

namespace App\Clouds\View;

/** A pass as it was laid onto another, or registered to control. Metres. */
final readonly class PassView
{
    /**
     * @param string      $onto     what stays: a drive as it came, a version of another pass; empty for control alone
     * @param string      $status   corrected, no-overlap, needs-pre-shift or as-driven
     * @param ?string     $reason   why it is not corrected
     * @param list<float> $preShift
     * @param int         $used     stations that are used
     * @param float       $length   of the pass
     * @param float       $greatest correction
     * @param list<array{target: string, time: float, e: float, n: float, h: float}> $targets
     * @param ?array{before: list<float>, after: list<float>, count: int} $control rms in plan and in height
     * @param ?array{before: list<float>, after: list<float>, count: int} $check
     * @param ?list<float> $without rms of what the other control says of each, in plan and in height
     * @param int         $run      which version of its trajectory this is; the newest is in use
     * @param string      $output   names the run's stations
     * @param list<string> $stale
     */
    public function __construct(
        public int $number, public string $name, public string $of, public string $onto, public int $trajectory, public int $cloud,
        public ?int $referenceTrajectory, public ?int $referenceCloud, public ?int $referencePass, public float $every,
        public bool $isTime, public float $radius, public array $preShift, public string $status, public ?string $reason,
        public int $stations, public int $used, public float $length,
        public ?float $rmsBefore, public ?float $rmsAfter, public float $greatest, public array $targets, public ?array $control,
        public ?array $check, public ?array $without, public int $run, public string $output, public string $at,
        public string $author, public array $stale,
    ) {
    }
}
