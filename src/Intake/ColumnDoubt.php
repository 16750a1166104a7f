<?php

declare(strict_types=1);

namespace App\Intake;

use Mensura\Exchange\Delimited\PointRecord;
use Mensura\Reference\Crs\HorizontalSystem;

/**
 * Whether the two columns of a file's places stand in each other's place, or have lost a minus sign: asked when the
 * points lie in the project so, and do not as they are written.
 */
final readonly class ColumnDoubt
{
    private const SAMPLE = 200;

    /** @param HorizontalSystem $given the system of the file */
    public function __construct(private Whereabouts $whereabouts, private HorizontalSystem $given, private bool $geographic)
    {
    }

    /**
     * The records with what has been answered.
     *
     * @param list<PointRecord> $records
     *
     * @return list<PointRecord>
     */
    public function answered(array $records, Meaning $meaning): array
    {
        if (true === $meaning->swap) {
            $records = array_map(
                fn (PointRecord $r): PointRecord => $this->geographic ? $r->atDegrees($r->lon, $r->lat) : $r->at($r->n, $r->e, $r->h),
                $records,
            );
        }
        if ($this->geographic && !\in_array($meaning->sign, ['', 'none'], true)) {
            [$south, $west] = ['longitude' === $meaning->sign ? 1.0 : -1.0, 'latitude' === $meaning->sign ? 1.0 : -1.0];
            $records = array_map(static fn (PointRecord $r): PointRecord => $r->atDegrees($south * $r->lat, $west * $r->lon), $records);
        }

        return $records;
    }

    /**
     * @param list<PointRecord> $records
     *
     * @return array{array<string, string>, string} questions; the sign to change
     */
    public function asks(array $records, Meaning $meaning): array
    {
        $places = [];
        foreach (\array_slice($records, 0, self::SAMPLE) as $r) {
            $places[] = $this->geographic ? [(float) $r->lat, (float) $r->lon] : [(float) $r->e, (float) $r->n];
        }
        if ([] === $places || $this->near($places, static fn (float $a, float $b): array => [$a, $b]) > 0) {
            return [[], ''];
        }
        $all = \count($places);
        if (null === $meaning->swap && $all === $this->near($places, static fn (float $a, float $b): array => [$b, $a])) {
            $outside = 'Read as easting and northing these points lie outside %s; with the two exchanged they lie inside. Exchange them?';

            return [['swap' => $this->geographic
                ? 'Read as latitude and longitude these points lie far from the project; with the two exchanged they lie '
                    .'in it. Exchange them?'
                : \sprintf($outside, $this->given->label())], ''];
        }
        if (!$this->geographic || '' !== $meaning->sign) {
            return [[], ''];
        }
        foreach (['longitude' => [1.0, -1.0], 'latitude' => [-1.0, 1.0], 'both' => [-1.0, -1.0]] as $which => [$south, $west]) {
            if ($all === $this->near($places, static fn (float $a, float $b): array => [$south * $a, $west * $b])) {
                $of = 'both' === $which ? 'latitude and longitude' : 'the '.$which;
                $words = 'As written these points lie far from the project; with the other sign of %s they lie in it. '
                    .'Has a minus sign been lost?';

                return [['sign' => \sprintf($words, $of)], $which];
            }
        }

        return [[], ''];
    }

    /**
     * @param list<array{float, float}>                     $places
     * @param \Closure(float, float): array{float, float} $change
     */
    private function near(array $places, \Closure $change): int
    {
        $near = 0;
        $use = $this->geographic ? $this->whereabouts->system->area : $this->given->area;
        foreach ($places as [$a, $b]) {
            [$a, $b] = $change($a, $b);
            if (!$this->geographic) {
                try {
                    [$lat, $lon] = $this->given->toGeographic($a, $b);
                } catch (\DomainException) {
                    continue;
                }
                [$a, $b] = [rad2deg($lat), rad2deg($lon)];
            } else {
                $b += $this->given->datum->primeMeridian;
            }
            $near += (int) (abs($a) <= 90.0 && $this->whereabouts->isPlausible($use, $a, $b));
        }

        return $near;
    }
}
