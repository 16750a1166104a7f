<?php

declare(strict_types=1);

namespace App\Baselines\Base;

use App\Baselines\Request\BaseRequest;
use App\Project\Project;
use App\Reference\Movement;
use App\Reference\ProjectReference;
use App\Reference\Side;
use Mensura\Fault\UnusableInput;

/** Where a base really is, as it was given, brought into the project's system and heights. */
final class RightPosition
{
    public const GRID = 'grid';
    public const GEOGRAPHIC = 'geographic';
    public const GEOCENTRIC = 'geocentric';
    public const FORMS = [self::GRID, self::GEOGRAPHIC, self::GEOCENTRIC];

    public function __construct(private readonly ProjectReference $references)
    {
    }

    /**
     * @return array{array{float, float, float}, string} easting, northing and height of the project, metres; how it came there
     *
     * @throws UnusableInput naming what is missing
     */
    public function of(Project $project, BaseRequest $r): array
    {
        if (null === $r->first || null === $r->second || null === $r->third) {
            throw new UnusableInput('/first', 'give all three coordinates of the right position');
        }
        $system = $this->references->of($project)
            ?? throw new UnusableInput('', 'a plane project knows no place on the earth; give it a system first');
        $system = ProjectReference::inMetres($system);
        $isOwn = 'project' === $r->frame;
        $from = $isOwn ? $system : $this->references->system($project->id(), $r->frame)
            ?? throw new UnusableInput('/frame', 'there is no such system');
        if (!$isOwn && self::GRID === $r->form) {
            $from = ProjectReference::inMetres($from);
            if (!$from->isProjected()) {
                throw new UnusableInput('/form', \sprintf('%s has no eastings and northings; give latitude and longitude', $from->label()));
            }
        }
        $geoid = $this->references->geoidOf($project);
        if ('geoid' === $r->heights && null === $geoid) {
            throw new UnusableInput(
                '/heights', 'the project has no geoid, so a height above one cannot be taken; give the ellipsoidal height',
            );
        }
        $above = 'geoid' === $r->heights && self::GEOCENTRIC !== $r->form ? $geoid : null;
        $movement = Movement::between(
            $this->references->finder($project->id()), new Side($from, $above), new Side($system, $geoid),
            $this->references->extent($project), null, $r->epoch,
        );
        $place = match ($r->form) {
            self::GRID => $movement->apply('the base', $r->first, $r->second, $r->third),
            self::GEOGRAPHIC => $movement->fromDegrees('the base', $r->first, $r->second, $r->third),
            default => self::geocentric($movement, $from->ellipsoid()->toGeodetic($r->first, $r->second, $r->third)),
        };
        $way = $movement->route->isIdentity() ? 'in the frame of the project' : 'by '.$movement->route->describe()['operation'];

        return [[$place[0], $place[1], (float) $place[2]], \sprintf(
            '%s%s, %s', $isOwn ? 'given in the project' : 'given in '.$from->label(), null === $r->epoch ? '' : \sprintf(
                ' at epoch %.2f', $r->epoch,
            ), $way,
        )];
    }

    /**
     * @param array{float, float, float} $geodetic radians from Greenwich, metres
     *
     * @return array{float, float, ?float}
     */
    private static function geocentric(Movement $movement, array $geodetic): array
    {
        return $movement->fromDegrees('the base', rad2deg($geodetic[0]), rad2deg($geodetic[1]), $geodetic[2]);
    }
}
