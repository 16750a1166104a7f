<?php

declare(strict_types=1);

namespace Mensura\Passes;

/** A place along a pass where its scan is compared with the reference. Seconds, metres. */
final class Station
{
    public const NO_POINTS = 'no-points';
    public const NO_REFERENCE = 'no-reference';
    public const OUTLIER = 'outlier';

    /** Why it is left out; null where it is used. */
    public ?string $reason = null;
    /** How many points of the scan are its own. */
    public int $points = 0;
    /** @var ?array{float, float, float} in all, what was shifted before included */
    public ?array $shift = null;
    /** @var ?array{float, float, float} */
    public ?array $sd = null;
    public ?float $rmsBefore = null;
    public ?float $rmsAfter = null;

    /** @param array{float, float, float} $place e, n, h on the trajectory as it was read */
    public function __construct(public readonly float $time, public readonly array $place)
    {
    }

    public function isUsed(): bool
    {
        return null === $this->reason;
    }

    public function hasReference(): bool
    {
        return self::NO_POINTS !== $this->reason && self::NO_REFERENCE !== $this->reason;
    }
}
