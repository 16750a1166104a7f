<?php

declare(strict_types=1);

namespace App\Reference;

use App\Account\User;
use App\Project\Project;
use App\Reference\View\CandidateView;
use App\Reference\View\SystemHit;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Ground\GridPoint;
use Mensura\Reference\OutsideProjection;
use Mensura\Reference\Registry\SystemSearch;

/**
 * Finds coordinate systems by words, by place, among those used lately and those of the project's own.
 *
 * @phpstan-import-type Hit from SystemSearch
 */
final class SystemFinder
{
    private const MOST_HITS = 50;
    private const MOST_BY_WORDS = 30;
    private const MOST_HERE = 40;
    private const OFFERED_HERE = 20;
    /** EPSG method: a family of zones, not a system to draw in. */
    private const ZONED = 9824;

    public function __construct(
        private readonly ProjectReference $references,
        private readonly CustomSystemRepository $systems,
        private readonly RecentSystemRepository $recent,
    ) {
    }

    /** @return list<SystemHit> */
    public function byWords(string $text): array
    {
        $hits = (new SystemSearch($this->references->registry()))->byWords($text, null, self::MOST_BY_WORDS, true);

        return array_map(static fn (array $hit): SystemHit => self::hit($hit, []), $hits);
    }

    /** @return list<SystemHit> */
    public function find(Project $project, User $member, string $text): array
    {
        $extent = $this->references->extent($project);
        $search = new SystemSearch($this->references->registry());
        $recent = $this->recent->of($member);
        if ('here' === strtolower($text)) {
            if (null === $extent) {
                $reason = 'the project has no points known globally yet, so there is no "here"; bring in control first, or search by words';
                throw new UnusableInput('/q', $reason);
            }

            return $this->here($search, $extent, $project->id());
        }
        $hits = '' === $text ? $this->offered($project, $search, $extent, $recent) : [];
        $rows = match (true) {
            '' !== $text => $search->byWords($text, $extent),
            null === $extent => [],
            default => \array_slice($search->covering($extent), 0, self::OFFERED_HERE),
        };
        $found = array_map(static fn (array $hit): SystemHit => self::hit($hit, $recent), $rows);
        usort($found, static fn (SystemHit $a, SystemHit $b): int => $b->recent <=> $a->recent);
        $seen = array_flip(array_map(static fn (SystemHit $h): string => $h->reference, $hits));
        $new = array_filter($found, static fn (SystemHit $h): bool => !isset($seen[$h->reference]));

        return \array_slice([...$hits, ...array_values($new)], 0, self::MOST_HITS);
    }

    /**
     * Before anything is typed: own systems, and those used lately.
     *
     * @param list<string> $recent
     *
     * @return list<SystemHit>
     */
    private function offered(Project $project, SystemSearch $search, ?Area $extent, array $recent): array
    {
        $own = $this->systems->of($project);
        usort($own, static fn (CustomSystem $a, CustomSystem $b): int => strcmp($a->name, $b->name));
        $hits = array_map(
            static fn (CustomSystem $s): SystemHit => new SystemHit(
                $s->reference(), $s->name, 'projected', 'of this project', 'own system', false, false,
            ), $own,
        );
        foreach ($recent as $code) {
            foreach ($search->byWords($code, $extent, 1) as $hit) {
                $hits[] = self::hit($hit, $recent);
            }
        }

        return $hits;
    }

    /** @return list<SystemHit> systems that cover all points, best first: near way from GNSS, little distortion, small area */
    private function here(SystemSearch $search, Area $extent, int $project): array
    {
        $finder = $this->references->finder($project);
        $wgs = $this->references->registry()->horizontalSystem('EPSG:4326');
        $accuracies = $ranked = [];
        $lat = deg2rad(($extent->south + $extent->north) / 2.0);
        $lon = deg2rad($extent->west + $extent->width() / 2.0);
        foreach ($search->covering($extent) as $hit) {
            try {
                $system = $this->references->registry()->horizontalSystem($hit['code']);
                if (self::ZONED === $system->conversion?->method) {
                    continue;
                }
                $ppm = self::distortion($system, $lat, $lon);
                $datum = (string) $system->datum->code;
                $accuracies[$datum] ??= self::accuracy(SystemDescription::candidates($finder->candidates($wgs, $system, false), $extent));
            } catch (\DomainException) {
                continue;
            }
            $accuracy = $accuracies[$datum];
            $hit['why'] = \sprintf('%+.0f ppm at the centre; %s', $ppm, self::fromGnss($accuracy));
            $size = log(1.0 + 1000.0 * ($hit['area']?->size() ?? 360.0));
            $ranked[] = [min(100.0, 20.0 * ($accuracy ?? 5.0)) + abs($ppm) / 20.0 + 2.0 * $size, self::hit($hit, [])];
        }
        usort($ranked, static fn (array $a, array $b): int => $a[0] <=> $b[0] ?: strcmp($a[1]->reference, $b[1]->reference));

        return array_column(\array_slice($ranked, 0, self::MOST_HERE), 1);
    }

    private static function fromGnss(?float $accuracy): string
    {
        return match ($accuracy) {
            null => 'no way from GNSS without a missing grid',
            0.0 => 'the datum of GNSS',
            default => \sprintf('%.3g m from GNSS', $accuracy),
        };
    }

    private static function distortion(HorizontalSystem $system, float $lat, float $lon): float
    {
        [$e, $n] = $system->fromGeographic($lat, $lon);
        $point = GridPoint::at($system, $e, $n, 0.0);
        if (abs($point->scale - $point->scaleAcross) > 1e-3) {
            throw new OutsideProjection('not conformal, so not for survey work');
        }

        return 1e6 * ($point->scale - 1.0);
    }

    /** @param list<CandidateView> $candidates */
    private static function accuracy(array $candidates): ?float
    {
        foreach ($candidates as $candidate) {
            if ($candidate->usable && $candidate->covers) {
                return $candidate->accuracy ?? 10.0;
            }
        }

        return null;
    }

    /**
     * @param Hit          $hit
     * @param list<string> $recent
     */
    private static function hit(array $hit, array $recent): SystemHit
    {
        $isRecent = \in_array($hit['code'], $recent, true);

        return new SystemHit(
            $hit['code'], $hit['name'], $hit['kind'], $hit['area']->name ?? '', $hit['why'], $hit['deprecated'],
            $isRecent,
        );
    }
}
