<?php

declare(strict_types=1);

namespace Mensura\Exchange\FlightJson;

use Mensura\Exchange\Json\JsonObject;
use Mensura\Fault\UnusableInput;
use Mensura\Image\Lens;

/**
 * Reads the mission of a photo flight, mensura-flight/1, or a group of images of a rover: that says a distance instead of a height
 * above ground, and the angles of every image. Every fault names its place as a JSON path.
 */
final class MissionReader
{
    public const FORMAT = 'mensura-flight/1';
    private const MOST = 500;
    private const FARTHEST = 1e8;

    /** @throws UnusableInput */
    public static function read(string $json): Mission
    {
        $d = JsonObject::document($json, self::FORMAT);
        $system = $d->has('system') ? $d->name('system') : '';
        if ('' !== $system && 1 !== preg_match('/^EPSG:\d{4,6}$/D', $system)) {
            throw $d->fault('system', 'is a code such as EPSG:25832, or left out for the project\'s own');
        }
        $c = $d->object('camera');
        [$width, $height] = [(int) $c->required('width'), (int) $c->required('height')];
        if ($width < 16 || $height < 16) {
            throw $c->fault('width', 'and height are pixels, 16 at least');
        }
        $camera = [];
        foreach (Lens::NAMES as $name) {
            $camera[] = match ($name) {
                'f' => $c->positive('f') ?? throw $c->fault('f', 'is missing: the focal length in pixels'),
                'cx' => $c->number('cx') ?? 0.5 * $width, 'cy' => $c->number('cy') ?? 0.5 * $height, default => $c->number($name) ?? 0.0,
            };
        }
        $solved = [];
        foreach ($c->words('solve') as $name) {
            $index = array_search($name, Lens::NAMES, true);
            if (false === $index) {
                throw $c->fault('solve', \sprintf('"%s" is no value of a camera; they are %s', $name, implode(', ', Lens::NAMES)));
            }
            $solved[$index] = $index;
        }
        ksort($solved);
        $sd = $d->object('sd');
        $isGroup = $d->has('distance');
        $turnSd = [$sd->positive('tilt'), $sd->positive('heading')];
        if ((null === $turnSd[0]) !== (null === $turnSd[1])) {
            $missing = null === $turnSd[0] ? 'tilt' : 'heading';
            throw $sd->fault($missing, 'is missing beside the other: what the angles are known to, degrees');
        }
        $files = $positions = $angles = [];
        foreach ($d->objects('images') as $row) {
            $file = $row->name('file');
            if (isset($files[$file])) {
                throw $row->fault('file', \sprintf('is there twice: %s', $file));
            }
            $files[$file] = $file;
            $at = static fn (string $axis): float => $row->within($axis, -self::FARTHEST, self::FARTHEST, 'm')
                ?? throw $row->fault($axis, 'is missing');
            $positions[] = [$at('e'), $at('n'), $at('h')];
            $said = array_map($row->number(...), ['omega', 'phi', 'kappa']);
            if (\in_array(null, $said, true) && ($isGroup || null !== $turnSd[0])) {
                throw $row->fault('omega', 'phi and kappa are needed of every image of a group, and where they have a standard deviation');
            }
            $angles[] = null === $said[2] ? null : [$said[0] ?? 0.0, $said[1] ?? 0.0, $said[2]];
        }
        if (\count($files) < 3 || \count($files) > self::MOST) {
            throw $d->fault('images', \sprintf('are %d; a flight has from 3 to %d', \count($files), self::MOST));
        }

        return new Mission(
            $d->name('name'), $system, $d->choice('heights', ['ellipsoidal', 'geoid']), $camera, array_values($solved), $width, $height,
            [
                $sd->positive('plan') ?? throw $sd->fault('plan', 'is missing: what the positions are known to, metres'),
                $sd->positive('up') ?? throw $sd->fault('up', 'is missing: what the heights are known to, metres'),
            ],
            $d->positive($isGroup ? 'distance' : 'above')
                ?? throw $d->fault('above', 'is missing: the height above ground, metres; or "distance", of a group of images of a rover'),
            array_values($files), $positions, $angles, $isGroup,
            null === $turnSd[0] || null === $turnSd[1] ? null : [$turnSd[0], $turnSd[1]],
        );
    }
}
