<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Clouds\Request\PassRequest;
use App\Reference\ReferenceContent;
use Mensura\Fault\UnusableInput;

/**
 * Which drive is laid onto which; kept with the result, so that it can be made again. Metres, seconds.
 *
 * @phpstan-type Seen array{target: string, stays: bool, time: float, e: float, n: float, h: float}
 */
final readonly class PassSettings
{
    /**
     * @param array{float, float, float} $preShift from a picked pair
     * @param list<Seen>                 $targets  control and check points as a scan shows them, of the drive that stays or the other
     */
    public function __construct(
        public string $name, public int $trajectory, public int $cloud, public int $referenceTrajectory, public int $referenceCloud,
        public float $every = 20.0, public bool $isTime = false, public float $radius = 1.0, public array $preShift = [0.0, 0.0, 0.0],
        public array $targets = [],
    ) {
    }

    /** @throws UnusableInput */
    public static function of(PassRequest $r): self
    {
        if ($r->trajectory === $r->referenceTrajectory) {
            throw new UnusableInput('/referenceTrajectory', 'is the pass itself; choose another drive to lay it onto');
        }
        if ($r->cloud === $r->referenceCloud) {
            throw new UnusableInput('/referenceCloud', 'is the scan of the pass itself; choose that of the other drive');
        }

        return self::fromArray((array) $r);
    }

    /** @param array<string, mixed> $s */
    public static function fromArray(array $s): self
    {
        $shift = array_map(floatval(...), array_values((array) ($s['preShift'] ?? [])));

        return new self(
            trim((string) $s['name']), (int) $s['trajectory'], (int) $s['cloud'], (int) $s['referenceTrajectory'],
            (int) $s['referenceCloud'], (float) ($s['every'] ?? 20.0), (bool) ($s['isTime'] ?? false), (float) ($s['radius'] ?? 1.0),
            [$shift[0] ?? 0.0, $shift[1] ?? 0.0, $shift[2] ?? 0.0],
            array_map(static fn (array $t): array => [
                'target' => (string) $t['target'], 'stays' => (bool) $t['stays'], 'time' => (float) $t['time'], 'e' => (float) $t['e'],
                'n' => (float) $t['n'], 'h' => (float) $t['h'],
            ], array_values((array) ($s['targets'] ?? []))),
        );
    }

    /** @return list<string> contents it rests on: files never change, only where they lie */
    public function contents(): array
    {
        return [] === $this->targets ? [ReferenceContent::kind()] : ['points', 'control', ReferenceContent::kind()];
    }
}
