<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/**
 * What a wrong base does to all that was measured from it: the vector from base to rover is right in the geocentric frame, so
 * every rover moves by what the base moves. Metres.
 */
final readonly class BaseShift
{
    private function __construct(public float $dx, public float $dy, public float $dz)
    {
    }

    /**
     * @param array{float, float, float} $used  place of the base as it was used, geocentric
     * @param array{float, float, float} $right as it is
     */
    public static function between(array $used, array $right): self
    {
        return new self($right[0] - $used[0], $right[1] - $used[1], $right[2] - $used[2]);
    }

    /**
     * An antenna height that was wrong: the antenna stood where it stood, so the mark was taken to be too high or too low.
     *
     * @param array{float, float, float} $base  place of the base, geocentric
     * @param float                      $used  height of the antenna as it was used, metres above the mark
     * @param float                      $right as it was
     */
    public static function ofAntenna(array $base, float $used, float $right): self
    {
        return self::between($base, Horizon::of($base)->shifted($base, 0.0, 0.0, $right - $used));
    }

    /**
     * @param array{float, float, float} $place geocentric
     *
     * @return array{float, float, float}
     */
    public function applied(array $place): array
    {
        return [$place[0] + $this->dx, $place[1] + $this->dy, $place[2] + $this->dz];
    }
}
