<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Reference\View\InverseView;
use App\Survey\Point;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Ground\Inverse;

/** Everything between two points, each figure with its source. */
final class InverseReport
{
    /** Metres; closer in plan than this, two points have no direction. */
    private const SAME_PLACE = 1e-6;
    private const MISSING = 'a height is missing';
    private const GROUND = 'horizontal, at the mean height of the two';

    public function __construct(private readonly ProjectReference $references)
    {
    }

    /** @throws UnusableInput */
    public function between(Project $project, Point $a, Point $b): InverseView
    {
        $plan = hypot($b->e - $a->e, $b->n - $a->n);
        if ($plan < self::SAME_PLACE) {
            throw new UnusableInput('/to', \sprintf('%s and %s are the same place', $a->name, $b->name));
        }
        $system = $this->references->of($project);
        $hasHeights = null !== $a->h && null !== $b->h;
        if (null === $system) {
            return self::onPlane($a, $b, $plan);
        }
        $geoid = $this->references->geoidOf($project);
        try {
            $na = $nb = 0.0;
            if (null !== $geoid) {
                [$lat, $lon] = $system->toGeographic((float) $a->e, (float) $a->n);
                $na = $geoid->height(rad2deg($lat), rad2deg($lon));
                [$lat, $lon] = $system->toGeographic((float) $b->e, (float) $b->n);
                $nb = $geoid->height(rad2deg($lat), rad2deg($lon));
            }
            $i = Inverse::between(
                $system, [(float) $a->e, (float) $a->n, $a->h ?? 0.0], [(float) $b->e, (float) $b->n, $b->h ?? 0.0],
                $na, $nb,
            );
        } catch (\DomainException $e) {
            throw new UnusableInput('', $e->getMessage());
        }
        $name = $system->name;
        $ellipsoid = $system->ellipsoid()->name;
        $none = $hasHeights ? '' : ' (a height is missing: taken as zero)';
        $heights = null === $geoid ? 'ellipsoidal heights' : 'heights above '.$geoid->name;

        return new InverseView($a->name, $b->name, [
            self::row('grid distance', $i->gridDistance, 'length', $name),
            self::row('ground distance', $hasHeights ? $i->groundDistance : null, 'length', $hasHeights ? self::GROUND : self::MISSING),
            self::row('ellipsoidal distance', $i->ellipsoidalDistance, 'length', 'geodesic on '.$ellipsoid),
            self::row(
                'slope distance', $hasHeights ? $i->slopeDistance : null, 'length',
                $hasHeights ? 'straight from mark to mark' : self::MISSING,
            ),
            self::row('height difference', $hasHeights ? $i->heightDifference : null, 'length', $heights),
            self::row('grid bearing', $i->gridBearing, 'angle', 'clockwise from grid north of '.$name),
            self::row('geodetic azimuth', $i->azimuthFrom, 'angle', 'of the geodesic at '.$a->name.', from true north'),
            self::row('back azimuth', $i->azimuthTo, 'angle', 'of the geodesic at '.$b->name),
            self::row('line scale factor', $i->lineScale, 'factor', 'Simpson\'s mean of ends and middle, in the line\'s direction'),
            self::row('height factor', $i->lineHeightFactor, 'factor', 'R / (R + h) at the middle'.$none),
            self::row('combined factor', $i->combined(), 'factor', 'line scale times height factor: grid over ground'),
            self::row('grid less ground', 1e6 * ($i->combined() - 1.0), 'ppm', 'combined factor less one'),
        ], [
            self::end('latitude', $i->from->latDegrees, $i->to->latDegrees, 'latitude', $system->datum->name),
            self::end('longitude', $i->from->lonDegrees, $i->to->lonDegrees, 'longitude', 'from Greenwich'),
            self::end(
                'ellipsoidal height', null === $a->h ? null : $i->from->ellipsoidalHeight,
                null === $b->h ? null : $i->to->ellipsoidalHeight,
                'length', null === $geoid ? 'as stored' : 'height plus N',
            ),
            self::end(
                'geoid height N', null === $geoid ? null : $na, null === $geoid ? null : $nb, 'length',
                null === $geoid ? 'no geoid in use' : $geoid->name,
            ),
            self::end('convergence', $i->from->convergence, $i->to->convergence, 'angle', 'true azimuth less grid bearing'),
            self::end('point scale factor', $i->from->scale, $i->to->scale, 'factor', 'derivative of the projection'),
            self::end('height factor', $i->from->heightFactor, $i->to->heightFactor, 'factor', 'R / (R + h)'),
            self::end('combined factor', $i->from->combined(), $i->to->combined(), 'factor', 'grid over ground'),
        ]);
    }

    private static function onPlane(Point $a, Point $b, float $plan): InverseView
    {
        $dh = null !== $a->h && null !== $b->h ? (float) $b->h - (float) $a->h : null;

        return new InverseView($a->name, $b->name, [
            self::row('horizontal distance', $plan, 'length', 'plane local system: grid and ground are one'),
            self::row(
                'slope distance', null === $dh ? null : hypot($plan, $dh), 'length',
                null === $dh ? 'a height is missing' : 'from mark to mark',
            ),
            self::row('bearing', self::bearing($a, $b), 'angle', 'clockwise from the local north axis'),
            self::row('height difference', $dh, 'length', 'local heights'),
        ], []);
    }

    /** Degrees clockwise from the local north axis. */
    private static function bearing(Point $a, Point $b): float
    {
        return fmod(rad2deg(atan2($b->e - $a->e, $b->n - $a->n)) + 360.0, 360.0);
    }

    /** @return array{label: string, value: ?float, kind: string, source: string} */
    private static function row(string $label, ?float $value, string $kind, string $source): array
    {
        return ['label' => $label, 'value' => $value, 'kind' => $kind, 'source' => $source];
    }

    /** @return array{label: string, from: ?float, to: ?float, kind: string, source: string} */
    private static function end(string $label, ?float $from, ?float $to, string $kind, string $source): array
    {
        return ['label' => $label, 'from' => $from, 'to' => $to, 'kind' => $kind, 'source' => $source];
    }
}
