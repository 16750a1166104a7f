<?php

declare(strict_types=1);

namespace Mensura\Traverse;

/**
 * A traverse balanced by the compass rule: the angular misclosure in equal parts, then the linear one by length of leg
 * (Bowditch 1808; every textbook of surveying).
 */
final readonly class CompassRule
{
    /** Observed less required, degrees; null without a closing line. */
    public ?float $angularMisclosure;

    /** @var ?array{float, float} computed less given e, n after the angles were balanced, metres; null for an open traverse */
    public ?array $misclosure;

    public float $length;

    /** Length over linear misclosure; null when open or without misclosure. */
    public ?float $ratio;

    /** @var list<?float> azimuth of the outgoing leg with balanced angles, degrees; of the last station that of the closing line */
    public array $azimuths;

    /** @var list<array{float, float}> e, n per station, balanced */
    public array $places;

    public function __construct(Traverse $traverse)
    {
        $legs = $traverse->legs;
        $last = \count($legs) - 1;
        $raw = [];
        $azimuth = $traverse->startAzimuth;
        foreach ($legs as $i => $leg) {
            // The back line of the first station is given, of the others it is the leg behind turned round.
            $azimuth += (float) $leg->angle + ($i > 0 ? 180.0 : 0.0);
            $raw[] = $azimuth;
        }
        $angular = null === $traverse->endAzimuth ? null : self::halfTurn($azimuth - $traverse->endAzimuth);
        $azimuths = [];
        $e = $traverse->start[0];
        $n = $traverse->start[1];
        $places = [[$e, $n]];
        $along = [0.0];
        $length = 0.0;
        foreach ($legs as $i => $leg) {
            $balanced = $raw[$i] - ($angular ?? 0.0) * ($i + 1) / ($last + 1);
            $azimuths[] = $i === $last && null === $traverse->endAzimuth ? null : self::circle($balanced);
            if ($i < $last) {
                $distance = (float) $leg->distance;
                $e += $distance * sin(deg2rad($balanced));
                $n += $distance * cos(deg2rad($balanced));
                $length += $distance;
                $places[] = [$e, $n];
                $along[] = $length;
            }
        }
        $misclosure = null === $traverse->end ? null : [$e - $traverse->end[0], $n - $traverse->end[1]];
        if (null !== $misclosure) {
            foreach ($places as $i => [$pe, $pn]) {
                $share = $along[$i] / $length;
                $places[$i] = [$pe - $misclosure[0] * $share, $pn - $misclosure[1] * $share];
            }
        }
        $linear = null === $misclosure ? 0.0 : hypot(...$misclosure);
        $this->angularMisclosure = $angular;
        $this->misclosure = $misclosure;
        $this->length = $length;
        $this->ratio = $linear > 0.0 ? $length / $linear : null;
        $this->azimuths = $azimuths;
        $this->places = $places;
    }

    private static function halfTurn(float $degrees): float
    {
        return $degrees - 360.0 * round($degrees / 360.0);
    }

    private static function circle(float $degrees): float
    {
        $turned = fmod($degrees, 360.0);
        $turned = $turned < 0.0 ? $turned + 360.0 : $turned;

        return $turned >= 360.0 ? 0.0 : $turned;
    }
}
