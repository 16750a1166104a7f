<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Clouds\Request\PassRequest;
use App\Reference\ReferenceContent;
use App\Survey\GivenContent;
use Mensura\Fault\UnusableInput;

/**
 * Which drive is laid onto which, or registered to control alone; kept with the result, so that it can be made again. Metres, seconds.
 *
 * @phpstan-type Seen array{target: string, time: float, e: float, n: float, h: float}
 */
final readonly class PassSettings
{
    /**
     * @param ?int                        $referenceTrajectory of the drive that stays, as it came; null for another pass, or control alone
     * @param ?int                        $referencePass       number of a pass whose version in use stays
     * @param array{float, float, float} $preShift            from a picked pair
     * @param list<Seen>                  $targets             control and check points as its scan shows them
     */
    public function __construct(
        public string $name, public int $trajectory, public int $cloud, public ?int $referenceTrajectory = null,
        public ?int $referenceCloud = null, public ?int $referencePass = null, public float $every = 20.0, public bool $isTime = false,
        public float $radius = 1.0, public array $preShift = [0.0, 0.0, 0.0], public array $targets = [],
    ) {
    }

    /** @throws UnusableInput */
    public static function of(PassRequest $r): self
    {
        if (null !== $r->referencePass && null !== $r->referenceTrajectory) {
            throw new UnusableInput('/referencePass', 'is given beside a trajectory; a pass is laid onto one drive');
        }
        if ((null === $r->referenceTrajectory) !== (null === $r->referenceCloud)) {
            throw new UnusableInput('/referenceCloud', 'and the trajectory of the drive that stays go together; give both or none');
        }
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
        // Of before what stays had passes of its own: seen by what stays.
        $own = array_filter((array) ($s['targets'] ?? []), static fn (array $t): bool => true !== ($t['stays'] ?? false));
        $whole = static fn (string $key): ?int => isset($s[$key]) ? (int) $s[$key] : null;

        return new self(
            trim((string) $s['name']), (int) $s['trajectory'], (int) $s['cloud'], $whole('referenceTrajectory'), $whole('referenceCloud'),
            $whole('referencePass'), (float) ($s['every'] ?? 20.0), (bool) ($s['isTime'] ?? false), (float) ($s['radius'] ?? 1.0),
            [$shift[0] ?? 0.0, $shift[1] ?? 0.0, $shift[2] ?? 0.0],
            array_map(static fn (array $t): array => [
                'target' => (string) $t['target'], 'time' => (float) $t['time'], 'e' => (float) $t['e'], 'n' => (float) $t['n'],
                'h' => (float) $t['h'],
            ], array_values($own)),
        );
    }

    public function isToControl(): bool
    {
        return null === $this->referenceTrajectory && null === $this->referencePass;
    }

    /** @return list<string> contents it rests on: files never change, only where they lie */
    public function contents(): array
    {
        return [] === $this->targets ? [ReferenceContent::kind()] : [GivenContent::kind(), ReferenceContent::kind()];
    }

    /** @return list<string> results it rests on */
    public function slots(): array
    {
        return null === $this->referencePass ? [] : [PassMaker::PREFIX.$this->referencePass];
    }
}
