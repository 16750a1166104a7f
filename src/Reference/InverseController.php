<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Project\ProjectAccess;
use App\Reference\View\InverseView;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Ground\GridPoint;
use Mensura\Reference\Ground\Inverse;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;

/** Distances, azimuths and factors between any two points of the project, each with its source. */
#[Route('/api/projects/{id<\d+>}/reference')]
final class InverseController
{
    public function __construct(private readonly ProjectAccess $access, private readonly Connection $connection, private readonly ProjectReference $references)
    {
    }

    #[Route('/inverse', methods: 'GET')]
    public function inverse(int $id, Request $request): JsonResponse
    {
        $project = $this->access->read($id);
        $a = $this->point($project, (string) $request->query->get('from'), '/from');
        $b = $this->point($project, (string) $request->query->get('to'), '/to');
        $plan = hypot($b['e'] - $a['e'], $b['n'] - $a['n']);
        if ($plan < 1e-6) {
            throw new UnusableInput('/to', \sprintf('%s and %s are the same place', $a['name'], $b['name']));
        }
        $system = $this->references->of($project);
        $hasHeights = null !== $a['h'] && null !== $b['h'];
        if (null === $system) {
            $dh = $hasHeights ? (float) $b['h'] - (float) $a['h'] : null;

            return new JsonResponse(new InverseView($a['name'], $b['name'], [
                self::row('horizontal distance', $plan, 'length', 'plane local system: grid and ground are one'),
                self::row('slope distance', null === $dh ? null : hypot($plan, $dh), 'length', null === $dh ? 'a height is missing' : 'from mark to mark'),
                self::row('bearing', fmod(rad2deg(atan2($b['e'] - $a['e'], $b['n'] - $a['n'])) + 360.0, 360.0), 'angle', 'clockwise from the local north axis'),
                self::row('height difference', $dh, 'length', 'local heights'),
            ], []));
        }
        $geoid = $this->references->geoidOf($project);
        try {
            $na = $nb = 0.0;
            if (null !== $geoid) {
                [$lat, $lon] = $system->toGeographic($a['e'], $a['n']);
                $na = $geoid->height(rad2deg($lat), rad2deg($lon));
                [$lat, $lon] = $system->toGeographic($b['e'], $b['n']);
                $nb = $geoid->height(rad2deg($lat), rad2deg($lon));
            }
            $i = Inverse::between($system, [$a['e'], $a['n'], $a['h'] ?? 0.0], [$b['e'], $b['n'], $b['h'] ?? 0.0], $na, $nb);
        } catch (\DomainException $e) {
            throw new UnusableInput('', $e->getMessage());
        }
        $name = $system->name;
        $ellipsoid = $system->ellipsoid()->name;
        $none = $hasHeights ? '' : ' (a height is missing: taken as zero)';
        $heights = null === $geoid ? 'ellipsoidal heights' : 'heights above '.$geoid->name;

        return new JsonResponse(new InverseView($a['name'], $b['name'], [
            self::row('grid distance', $i->gridDistance, 'length', $name),
            self::row('ground distance', $hasHeights ? $i->groundDistance : null, 'length', $hasHeights ? 'horizontal, at the mean height of the two' : 'a height is missing'),
            self::row('ellipsoidal distance', $i->ellipsoidalDistance, 'length', 'geodesic on '.$ellipsoid),
            self::row('slope distance', $hasHeights ? $i->slopeDistance : null, 'length', $hasHeights ? 'straight from mark to mark' : 'a height is missing'),
            self::row('height difference', $hasHeights ? $i->heightDifference : null, 'length', $heights),
            self::row('grid bearing', $i->gridBearing, 'angle', 'clockwise from grid north of '.$name),
            self::row('geodetic azimuth', $i->azimuthFrom, 'angle', 'of the geodesic at '.$a['name'].', from true north'),
            self::row('back azimuth', $i->azimuthTo, 'angle', 'of the geodesic at '.$b['name']),
            self::row('line scale factor', $i->lineScale, 'factor', 'Simpson\'s mean of ends and middle, in the line\'s direction'),
            self::row('height factor', $i->lineHeightFactor, 'factor', 'R / (R + h) at the middle'.$none),
            self::row('combined factor', $i->combined(), 'factor', 'line scale times height factor: grid over ground'),
            self::row('grid less ground', 1e6 * ($i->combined() - 1.0), 'ppm', 'combined factor less one'),
        ], [
            self::end('latitude', $i->from->latDegrees, $i->to->latDegrees, 'latitude', $system->datum->name),
            self::end('longitude', $i->from->lonDegrees, $i->to->lonDegrees, 'longitude', 'from Greenwich'),
            self::end('ellipsoidal height', null === $a['h'] ? null : $i->from->ellipsoidalHeight, null === $b['h'] ? null : $i->to->ellipsoidalHeight, 'length', null === $geoid ? 'as stored' : 'height plus N'),
            self::end('geoid height N', null === $geoid ? null : $na, null === $geoid ? null : $nb, 'length', null === $geoid ? 'no geoid in use' : $geoid->name),
            self::end('convergence', $i->from->convergence, $i->to->convergence, 'angle', 'true azimuth less grid bearing'),
            self::end('point scale factor', $i->from->scale, $i->to->scale, 'factor', 'derivative of the projection'),
            self::end('height factor', $i->from->heightFactor, $i->to->heightFactor, 'factor', 'R / (R + h)'),
            self::end('combined factor', $i->from->combined(), $i->to->combined(), 'factor', 'grid over ground'),
        ]));
    }

    /** Convergence, factors and N of every point, for the table; of one when it is named. Null where the projection or the geoid has no value. */
    #[Route('/factors', methods: 'GET')]
    public function factors(int $id, Request $request): JsonResponse
    {
        $project = $this->access->read($id);
        $system = $this->references->of($project);
        if (null === $system) {
            return new JsonResponse([]);
        }
        $geoid = $this->references->geoidOf($project);
        $name = (string) $request->query->get('point');
        $rows = [];
        foreach ($this->connection->iterateAssociative("SELECT name, e, n, h FROM point WHERE project_id = ? AND known = 'global' AND e IS NOT NULL AND n IS NOT NULL".('' === $name ? '' : ' AND name = ?')." ORDER BY role = 'surveyed', id", '' === $name ? [$id] : [$id, $name]) as $p) {
            $n = $point = null;
            try {
                [$lat, $lon] = $system->toGeographic((float) $p['e'], (float) $p['n']);
                $n = $geoid?->height(rad2deg($lat), rad2deg($lon));
                $point = GridPoint::at($system, (float) $p['e'], (float) $p['n'], (float) ($p['h'] ?? 0.0) + ($n ?? 0.0));
            } catch (\DomainException) {
                // The row says so by its gaps.
            }
            $rows[] = ['name' => (string) $p['name'], 'lat' => $point?->latDegrees, 'lon' => $point?->lonDegrees, 'convergence' => $point?->convergence, 'scale' => $point?->scale, 'combined' => $point?->combined(), 'n' => $n];
        }

        return new JsonResponse($rows);
    }

    /** @return array{name: string, e: float, n: float, h: ?float} */
    private function point(Project $project, string $name, string $pointer): array
    {
        $p = $this->connection->fetchAssociative('SELECT name, e, n, h, known FROM point WHERE project_id = ? AND name = ?', [$project->id(), $name]);
        if (false === $p || null === $p['e'] || null === $p['n']) {
            throw new UnusableInput($pointer, \sprintf('there is no point "%s" with coordinates', $name));
        }
        if ('local' === $p['known'] && Project::PLANE !== $project->reference()) {
            throw new UnusableInput($pointer, \sprintf('%s is known only locally; bring it onto the grid with a localization first', $name));
        }

        return ['name' => (string) $p['name'], 'e' => (float) $p['e'], 'n' => (float) $p['n'], 'h' => null === $p['h'] ? null : (float) $p['h']];
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
