<?php

declare(strict_types=1);

namespace Mensura\Gnss;

use Mensura\Fault\UnusableInput;

/** How high an antenna stood above its marker, as it was measured, and what that comes to at its reference point. Metres. */
final readonly class AntennaHeight
{
    public const VERTICAL = 'vertical';
    public const SLANT = 'slant';

    /**
     * @param string $kind   vertical or slant
     * @param float  $value  read on the tape or the pole
     * @param float  $radius of the edge the slant distance was measured to; of no use to a vertical one
     * @param float  $above  how far the place measured to lies above the reference point (its underside)
     *
     * @throws UnusableInput for a slant shorter than the radius, or no number a tripod has
     */
    public function __construct(public string $kind, public float $value, public float $radius = 0.0, public float $above = 0.0)
    {
        if (!\in_array($kind, [self::VERTICAL, self::SLANT], true)) {
            throw new UnusableInput('/kind', 'an antenna height is measured vertical or slant');
        }
        if (!($value >= 0.0 && $value < 100.0)) {
            throw new UnusableInput('/value', \sprintf('%.4f m is no height of an antenna', $value));
        }
        if (self::SLANT === $kind && !($radius >= 0.0 && $radius < $value)) {
            throw new UnusableInput('/radius', 'a slant height is longer than the radius of the edge it was measured to');
        }
    }

    /** Of the antenna reference point above the marker: for a slant, the upright side of the triangle (Pythagoras). */
    public function vertical(): float
    {
        $up = self::SLANT === $this->kind ? sqrt($this->value ** 2 - $this->radius ** 2) : $this->value;

        return $up - $this->above;
    }

    /** As in "slant 1.523 m to an edge of radius 0.150 m: 1.516 m to the reference point". */
    public function words(): string
    {
        $to = \sprintf('%.4f m to the reference point', $this->vertical());

        return self::SLANT === $this->kind
            ? \sprintf('slant %.4f m to an edge of radius %.4f m%s: %s', $this->value, $this->radius, $this->aboveWords(), $to)
            : \sprintf('vertical %.4f m%s%s', $this->value, $this->aboveWords(), 0.0 === $this->above ? '' : ': '.$to);
    }

    private function aboveWords(): string
    {
        return 0.0 === $this->above ? '' : \sprintf(', measured to %.4f m above the reference point', $this->above);
    }
}
