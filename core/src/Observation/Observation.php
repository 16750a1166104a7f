<?php

declare(strict_types=1);

namespace Mensura\Observation;

/**
 * One observation as an instrument or a processor delivered it.
 *
 * Lengths in metres; angular values and their standard deviations in degrees. A vector has components
 * (geocentric in a crs frame, e n h in a plane frame) and a 3x3 covariance in square metres.
 */
final readonly class Observation
{
    /**
     * @param ?string                                    $set        names the round or setup it belongs to; the
     *     directions of a set share an orientation
     * @param ?string                                    $back       backsight of an angle
     * @param ?array{float, float, float}                $components of a vector
     * @param ?list<list<float>>                         $covariance of a vector
     * @param array{bool, bool, bool}                    $used       per component; a scalar observation uses the first
     * @param float                                      $sdFactor   what its standard deviation is multiplied by, wherever it comes from
     */
    public function __construct(
        public ObservationKind $kind,
        public string $from,
        public string $to,
        public ?float $value,
        public ?float $sd = null,
        public ?string $set = null,
        public ?string $back = null,
        public float $instrumentHeight = 0.0,
        public float $targetHeight = 0.0,
        public ?array $components = null,
        public ?array $covariance = null,
        public array $used = [true, true, true],
        public float $sdFactor = 1.0,
    ) {
    }

    /**
     * The same with some of it changed.
     *
     * @param array<string, mixed> $changes by name of the constructor's arguments
     */
    public function with(array $changes): self
    {
        return new self(...($changes + get_object_vars($this)));
    }

    public function rowCount(): int
    {
        return ObservationKind::Vector === $this->kind ? 3 : 1;
    }
}
