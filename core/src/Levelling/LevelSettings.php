<?php

declare(strict_types=1);

namespace Mensura\Levelling;

/** How levelled runs are reduced and judged. */
final readonly class LevelSettings
{
    public const PER_KM = 'km';
    public const PER_SETUP = 'setup';
    public const BY_LENGTH = 'length';
    public const BY_SETUP = 'setup';

    /**
     * @param ?float          $allowable        k of k sqrt(length in km) or k sqrt(setups), metres; null: nothing is tested
     * @param self::PER_*     $per
     * @param self::BY_*      $distribute       how a misclosure is shared out
     * @param float           $refraction       coefficient
     * @param float           $earthRadius      metres
     * @param ?float          $repeatLimit      of repeated readings or differences, metres
     * @param float           $scalePpm         of the staff
     * @param float           $expansion        of the staff, per kelvin
     */
    public function __construct(
        public ?float $allowable = null,
        public string $per = self::PER_KM,
        public string $distribute = self::BY_LENGTH,
        public bool $curvature = false,
        public float $refraction = 0.13,
        public float $earthRadius = 6371000.0,
        public ?float $repeatLimit = null,
        public float $scalePpm = 0.0,
        public float $expansion = 0.0,
        public float $temperature = 20.0,
        public float $referenceTemperature = 20.0,
    ) {
    }

    /** What a reading is multiplied by: scale of the staff and its expansion since it was compared. */
    public function staffFactor(): float
    {
        return 1.0 + 1e-6 * $this->scalePpm + $this->expansion * ($this->temperature - $this->referenceTemperature);
    }

    /** How much too high a staff is read at this distance, metres: (1 - k) d^2 / (2 R). */
    public function curvatureAt(float $distance): float
    {
        return (1.0 - $this->refraction) * $distance * $distance / (2.0 * $this->earthRadius);
    }

    /** What a misclosure may be at most; null where it cannot be had. */
    public function allowableOf(?float $length, int $setups): ?float
    {
        if (null === $this->allowable) {
            return null;
        }

        return self::PER_SETUP === $this->per ? $this->allowable * sqrt($setups)
            : (null === $length ? null : $this->allowable * sqrt($length / 1000.0));
    }
}
