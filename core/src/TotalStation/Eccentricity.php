<?php

declare(strict_types=1);

namespace Mensura\TotalStation;

use Mensura\Fault\UnusableInput;

/**
 * A target that stood beside the mark it was set out for. The offset leads from the target to the mark as the observer sees
 * it: to the right across the line of sight, onwards away from the instrument, and upwards. Metres, degrees.
 *
 * The sight is taken apart into its horizontal and vertical parts, the offset added, and put together again (reduction to
 * centre, textbooks of surveying; common practice).
 */
final readonly class Eccentricity
{
    public function __construct(public float $right, public float $onwards, public float $up)
    {
    }

    /**
     * The sight as it would have been to the mark.
     *
     * @return array{float, float, float} turn of the direction (degrees, to the right), zenith angle, slope distance
     *
     * @throws UnusableInput where the mark falls on the instrument
     */
    public function applied(float $zenith, float $slope): array
    {
        $z = deg2rad($zenith);
        $along = $slope * sin($z) + $this->onwards;
        $up = $slope * cos($z) + $this->up;
        $plan = hypot($along, $this->right);
        if (!($along > 0.0) || !($plan > 0.001)) {
            throw new UnusableInput('', \sprintf(
                'the offset of %.3f m onwards leads back past the instrument, %.3f m away; is it meant the other way?',
                $this->onwards, $slope * sin($z),
            ));
        }

        return [rad2deg(atan2($this->right, $along)), rad2deg(atan2($plan, $up)), hypot($plan, $up)];
    }
}
