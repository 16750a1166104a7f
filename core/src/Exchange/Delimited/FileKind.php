<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/** What a delimited file holds. */
enum FileKind: string
{
    case Control = 'control';
    case TotalStation = 'total-station';
    case Vectors = 'vectors';
    case Points = 'points';

    /** Headings that say what a height is above. */
    private const ELLIPSOIDAL = ['ellipsoidalheight', 'heightellipsoidal', 'ellipsoidheight', 'hellipsoidal', 'ellheight'];
    private const ORTHOMETRIC = ['orthometricheight', 'heightorthometric', 'horthometric', 'heightabovegeoid', 'levelledheight'];

    public function label(): string
    {
        return match ($this) {
            self::Control => 'control list',
            self::TotalStation => 'total-station pointings',
            self::Vectors => 'GNSS vectors',
            self::Points => 'surveyed points',
        };
    }

    /** What a height column's heading (letters and digits only, lower case) says of its heights; null when it says nothing. */
    public static function heightsSaid(string $heading): ?string
    {
        return \in_array($heading, self::ELLIPSOIDAL, true)
            ? 'ellipsoidal'
            : (\in_array($heading, self::ORTHOMETRIC, true) ? 'geoid' : null);
    }

    /** @return list<Field> */
    public function fields(): array
    {
        $name = new Field(
            'name', 'point', 'text', true,
            ['point', 'pointid', 'pointname', 'pt', 'id', 'name', 'mark', 'station', 'number', 'pointnumber'],
        );
        $e = new Field('e', 'easting', 'length', true, ['e', 'easting', 'east', 'x']);
        $n = new Field('n', 'northing', 'length', true, ['n', 'northing', 'north', 'y']);
        $lat = new Field('lat', 'latitude', 'angle', false, ['latitude', 'lat', 'geodeticlatitude', 'phi']);
        $lon = new Field('lon', 'longitude', 'angle', false, ['longitude', 'lon', 'lng', 'long', 'geodeticlongitude', 'lambda']);
        $h = new Field(
            'h', 'height', 'length', self::Points === $this,
            ['h', 'height', 'elevation', 'z', 'level', 'rl', ...self::ELLIPSOIDAL, ...self::ORTHOMETRIC],
        );
        $code = new Field('code', 'code', 'text', false, ['code', 'description', 'feature', 'remark', 'desc']);

        return match ($this) {
            self::Control => [
                $name, $e, $n, $lat, $lon, $h,
                new Field('held', 'held', 'text', false, ['held', 'fixed', 'hold', 'constraint']),
                new Field('sd_e', 'sd easting', 'length', false, ['sde', 'sdeasting', 'sdeast', 'sigmae', 'stddeve']),
                new Field('sd_n', 'sd northing', 'length', false, ['sdn', 'sdnorthing', 'sdnorth', 'sigman', 'stddevn']),
                new Field('sd_h', 'sd height', 'length', false, ['sdh', 'sdheight', 'sigmah', 'stddevh', 'sdz']),
                $code,
            ],
            self::Points => [$name, $e, $n, $lat, $lon, $h, $code],
            self::TotalStation => [
                new Field(
                    'station', 'station', 'text', true,
                    ['station', 'at', 'from', 'setup', 'instrumentstation', 'standpoint', 'occupied'],
                ),
                new Field('set', 'round', 'text', false, ['round', 'set', 'setupid', 'setupno', 'setnumber', 'roundno']),
                new Field('hi', 'instrument height', 'length', false, ['hi', 'instrumentheight', 'ih', 'heightofinstrument', 'instrument']),
                new Field('target', 'target', 'text', true, ['target', 'to', 'targetname', 'point', 'sighted', 'targetpoint', 'pointname']),
                new Field('ht', 'target height', 'length', false, ['ht', 'targetheight', 'th', 'heightoftarget', 'prismheight']),
                new Field(
                    'direction', 'direction', 'angle', true,
                    ['direction', 'horizontaldirection', 'hz', 'horizontal', 'horizontalangle', 'horizontalcircle', 'hcr'],
                ),
                new Field(
                    'zenith', 'zenith angle', 'angle', false,
                    ['zenith', 'zenithangle', 'za', 'verticalangle', 'v', 'va', 'vertical', 'verticalcircle'],
                ),
                new Field(
                    'distance', 'slope distance', 'length', false,
                    ['slopedistance', 'distance', 'slope', 'sdist', 'slopedist', 'sdistance'],
                ),
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
        };
    }
}
