<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Observation\ObservationKind;

/**
 * The observations of a network as flat lists for the hot loops: lengths in metres, angles in radians, zenith angles of
 * face 2 folded to 0..180 degrees. A row is one scalar; a vector has three.
 */
final class ObservationTable
{
    public const DIRECTION = 0;
    public const AZIMUTH = 1;
    public const ANGLE = 2;
    public const SLOPE_DISTANCE = 3;
    public const HORIZONTAL_DISTANCE = 4;
    public const ZENITH = 5;
    public const HEIGHT_DIFFERENCE = 6;
    public const VECTOR = 7;

    private const CODES = [
        'direction' => self::DIRECTION, 'azimuth' => self::AZIMUTH, 'angle' => self::ANGLE, 'slope-distance' => self::SLOPE_DISTANCE,
        'horizontal-distance' => self::HORIZONTAL_DISTANCE, 'zenith' => self::ZENITH, 'height-difference' => self::HEIGHT_DIFFERENCE,
        'vector' => self::VECTOR,
    ];

    public readonly int $count;

    public readonly int $rowCount;

    /** @var list<int> per observation, one of the constants */
    public readonly array $kind;

    /** @var list<int> station */
    public readonly array $from;

    /** @var list<int> station */
    public readonly array $to;

    /** @var list<int> station of an angle's backsight, -1 for the others */
    public readonly array $back;

    /** @var list<int> set of a direction, -1 for the others */
    public readonly array $set;

    /** @var list<int> first row */
    public readonly array $row;

    /** @var list<float> where it counts: a plan observation runs from mark to mark */
    public array $instrumentHeight = [];

    /** @var list<float> */
    public array $targetHeight = [];

    /** @var list<float> per row */
    public array $value = [];

    /** @var list<string> station and name of each set */
    public readonly array $setNames;

    /** @var list<int> station of each set */
    public readonly array $setStation;

    public function __construct(NetworkDefinition $network)
    {
        $index = $network->stationIndex;
        $kind = $from = $to = $back = $set = $row = $value = $hi = $ht = [];
        $sets = $setStation = [];
        $rows = 0;
        foreach ($network->observations as $o) {
            $code = self::CODES[$o->kind->value];
            $kind[] = $code;
            $from[] = $at = $index[$o->from];
            $to[] = $index[$o->to];
            $back[] = null === $o->back ? -1 : $index[$o->back];
            $row[] = $rows;
            $hi[] = $o->kind->isPlanOnly() ? 0.0 : $o->instrumentHeight;
            $ht[] = $o->kind->isPlanOnly() ? 0.0 : $o->targetHeight;
            if (self::VECTOR === $code) {
                $rows += 3;
                $set[] = -1;
                foreach ($o->components ?? [0.0, 0.0, 0.0] as $component) {
                    $value[] = $component;
                }
                continue;
            }
            ++$rows;
            $observed = $o->value ?? 0.0;
            $value[] = match ($code) {
                self::ZENITH => deg2rad($observed > 180.0 ? 360.0 - $observed : $observed),
                self::DIRECTION, self::AZIMUTH, self::ANGLE => deg2rad($observed),
                default => $observed,
            };
            if (ObservationKind::Direction === $o->kind) {
                $key = $o->from."\0".$o->set;
                if (!isset($sets[$key])) {
                    $sets[$key] = \count($sets);
                    $setStation[] = $at;
                }
                $set[] = $sets[$key];
            } else {
                $set[] = -1;
            }
        }
        $this->count = \count($kind);
        $this->rowCount = $rows;
        $this->kind = $kind;
        $this->from = $from;
        $this->to = $to;
        $this->back = $back;
        $this->set = $set;
        $this->row = $row;
        $this->instrumentHeight = $hi;
        $this->targetHeight = $ht;
        $this->value = $value;
        $this->setNames = array_map(static fn (string|int $key): string => strtr((string) $key, "\0", ' '), array_keys($sets));
        $this->setStation = $setStation;
    }
}
