<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/** What a file holds. */
enum FileKind: string
{
    case Control = 'control';
    case TotalStation = 'total-station';
    case Vectors = 'vectors';
    case Points = 'points';
    case Occupation = 'gnss-observations';
    case Navigation = 'gnss-navigation';
    case Orbits = 'gnss-orbits';
    case RoverFeatures = 'rover-features';
    case Recording = 'receiver-recording';
    case Antennas = 'antenna-calibrations';
    case Design = 'design';
    case Cloud = 'cloud';
    case Trajectory = 'trajectory';
    case Photo = 'photo';
    case Flight = 'flight';

    /** Whether its places are marks of the project; those of a drawing or a photo only show where it lies. */
    public function hasMarks(): bool
    {
        return self::Control === $this || self::Points === $this;
    }

    /** @return list<self> those a table can hold: which of them it is can be chosen */
    public static function tables(): array
    {
        return [self::Control, self::TotalStation, self::Vectors, self::Points];
    }

    public function label(): string
    {
        return match ($this) {
            self::Control => 'control list',
            self::TotalStation => 'total-station pointings',
            self::Vectors => 'GNSS vectors',
            self::Points => 'surveyed points',
            self::Occupation => 'GNSS observations',
            self::Navigation => 'broadcast ephemerides',
            self::Orbits => 'precise orbits',
            self::RoverFeatures => 'rover features',
            self::Recording => 'receiver recording',
            self::Antennas => 'antenna calibrations',
            self::Design => 'design',
            self::Cloud => 'point cloud',
            self::Trajectory => 'trajectory',
            self::Photo => 'photo',
            self::Flight => 'photo flight',
        };
    }

    /** What a height column's heading (letters and digits only, lower case) says of its heights; null when it says nothing. */
    public static function heightsSaid(string $heading): ?string
    {
        return \in_array($heading, Headings::ELLIPSOIDAL, true)
            ? 'ellipsoidal'
            : (\in_array($heading, Headings::ORTHOMETRIC, true) ? 'geoid' : null);
    }

    /** @return list<Field> */
    public function fields(): array
    {
        $name = new Field('name', 'point', 'text', true, Headings::NAME);
        $e = new Field('e', 'easting', 'length', true, Headings::EASTING);
        $n = new Field('n', 'northing', 'length', true, Headings::NORTHING);
        $lat = new Field('lat', 'latitude', 'angle', false, Headings::LATITUDE);
        $lon = new Field('lon', 'longitude', 'angle', false, Headings::LONGITUDE);
        $h = new Field('h', 'height', 'length', self::Points === $this, Headings::HEIGHT);
        $code = new Field('code', 'code', 'text', false, Headings::CODE);

        return match ($this) {
            self::Control => [
                $name, $e, $n, $lat, $lon, $h,
                new Field('held', 'held', 'text', false, Headings::HELD),
                new Field('sd_e', 'sd easting', 'length', false, Headings::SD_E),
                new Field('sd_n', 'sd northing', 'length', false, Headings::SD_N),
                new Field('sd_h', 'sd height', 'length', false, Headings::SD_H),
                $code,
            ],
            self::Points => [
                $name, $e, $n, $lat, $lon, $h, $code,
                new Field('time', 'time', 'text', false, Headings::TIME),
                new Field('method', 'method', 'text', false, Headings::METHOD),
                new Field('satellites', 'satellites', 'text', false, Headings::SATELLITES),
                new Field('positions', 'positions averaged', 'text', false, Headings::POSITIONS),
                new Field('line', 'goes on as', 'text', false, Headings::LINEWORK),
                new Field('sd_plan', 'sd plan', 'length', false, Headings::SD_PLAN),
                new Field('sd_up', 'sd height', 'length', false, Headings::SD_UP),
            ],
            self::TotalStation => [
                new Field('station', 'station', 'text', true, Headings::STATION),
                new Field('set', 'round', 'text', false, Headings::ROUND),
                new Field('face', 'face', 'text', false, Headings::FACE),
                new Field('hi', 'instrument height', 'length', false, Headings::INSTRUMENT_HEIGHT),
                new Field('target', 'target', 'text', true, Headings::TARGET),
                new Field('ht', 'target height', 'length', false, Headings::TARGET_HEIGHT),
                new Field('back', 'angle from', 'text', false, Headings::BACKSIGHT),
                new Field('direction', 'direction', 'angle', true, Headings::DIRECTION),
                new Field('zenith', 'zenith angle', 'angle', false, Headings::ZENITH),
                new Field('distance', 'slope distance', 'length', false, Headings::SLOPE_DISTANCE),
                new Field('horizontal', 'horizontal distance', 'length', false, Headings::HORIZONTAL_DISTANCE),
                new Field('temperature', 'temperature, °C', 'text', false, Headings::TEMPERATURE),
                new Field('pressure', 'pressure, hPa', 'text', false, Headings::PRESSURE),
                new Field('humidity', 'humidity, %', 'text', false, Headings::HUMIDITY),
                $code,
            ],
            self::Vectors => [
                new Field('from', 'from', 'text', true, ['from', 'base', 'start', 'frompoint']),
                new Field('to', 'to', 'text', true, ['to', 'rover', 'end', 'topoint']),
                new Field('session', 'session', 'text', false, ['session', 'occupation', 'sessionid']),
                new Field('dx', 'dX', 'length', true, ['dx', 'deltax', 'vx']),
                new Field('dy', 'dY', 'length', true, ['dy', 'deltay', 'vy']),
                new Field('dz', 'dZ', 'length', true, ['dz', 'deltaz', 'vz']),
                new Field('cxx', 'cov XX', 'variance', true, ['cxx', 'covxx', 'varx', 'qxx', 'varxx']),
                new Field('cxy', 'cov XY', 'variance', false, ['cxy', 'covxy', 'qxy']),
                new Field('cxz', 'cov XZ', 'variance', false, ['cxz', 'covxz', 'qxz']),
                new Field('cyy', 'cov YY', 'variance', true, ['cyy', 'covyy', 'vary', 'qyy', 'varyy']),
                new Field('cyz', 'cov YZ', 'variance', false, ['cyz', 'covyz', 'qyz']),
                new Field('czz', 'cov ZZ', 'variance', true, ['czz', 'covzz', 'varz', 'qzz', 'varzz']),
            ],
            self::Occupation, self::Navigation, self::Orbits, self::RoverFeatures, self::Recording, self::Antennas,
            self::Design, self::Cloud, self::Trajectory, self::Photo,
            self::Flight => [],
        };
    }
}
