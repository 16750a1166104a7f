<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Fault\UnusableInput;

/** LandXML 1.2: points, lines as plan features, polygons as parcels, faces as surfaces by layer; northing easting elevation. */
final class LandXmlWriter implements FeatureWriter
{
    private const UNITS = [
        'metre' => ['Metric', 'meter', 'squareMeter', 'cubicMeter', 'celsius', 'milliBars'],
        'foot' => ['Imperial', 'foot', 'squareFoot', 'cubicFeet', 'fahrenheit', 'inchHG'],
        'US survey foot' => ['Imperial', 'USSurveyFoot', 'squareFoot', 'cubicFeet', 'fahrenheit', 'inchHG'],
        'millimetre' => ['Metric', 'millimeter', 'squareMeter', 'cubicMeter', 'celsius', 'milliBars'],
    ];
    private const CODES = ['code', 'desc'];

    public function write(FeatureSet $set, string $path): array
    {
        if ($set->isGeographic()) {
            $words = 'LandXML holds northings and eastings, not latitudes and longitudes: name a projected system with --to-crs';
            throw new UnusableInput('', $words);
        }
        $lost = new Lost();
        $naming = $set->naming();
        $lost->properties($set, null === $naming ? self::CODES : [$naming, ...self::CODES]);
        [$system, $linear, $area, $volume, $temperature, $pressure] = self::UNITS[$set->unit ?? 'metre'] ?? self::UNITS['metre'];
        $file = fopen($path, 'w') ?: throw new \RuntimeException($path.' cannot be written.');
        fwrite($file, "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n");
        $date = \sprintf('date="%s" time="%s"', $set->dated('Y-m-d'), $set->dated('H:i:s'));
        fwrite($file, "<LandXML xmlns=\"http://www.landxml.org/schema/LandXML-1.2\" version=\"1.2\" $date>\n");
        fwrite($file, "<Units><$system linearUnit=\"$linear\" areaUnit=\"$area\" volumeUnit=\"$volume\" temperatureUnit=\"$temperature\" "
            ."pressureUnit=\"$pressure\" angularUnit=\"decimal degrees\" directionUnit=\"decimal degrees\"/></Units>\n");
        if (null !== $set->crs) {
            fwrite($file, '<CoordinateSystem epsgCode="'.substr($set->crs, 5)."\"/>\n");
        }
        $this->points($file, $set, $naming, $lost);
        $this->lines($file, $set, Feature::LINE, 'PlanFeature', $naming, $lost);
        $this->lines($file, $set, Feature::POLYGON, 'Parcel', $naming, $lost);
        $this->surfaces($file, $set, $lost);
        fwrite($file, "</LandXML>\n");
        fclose($file);

        return $lost->all();
    }

    /** @param resource $file */
    private function points($file, FeatureSet $set, ?string $naming, Lost $lost): void
    {
        $used = [];
        $isOpen = false;
        $number = 0;
        foreach ($set->features as $f) {
            if (Feature::POINT !== $f->kind) {
                continue;
            }
            if (!$isOpen) {
                fwrite($file, "<CgPoints>\n");
                $isOpen = true;
            }
            if (\count($f->parts) > 1) {
                $lost->count('points of several places, written one by one');
            }
            foreach ($f->parts as [[$place]]) {
                ++$number;
                $given = Plain::text($f->properties[$naming ?? ''] ?? null);
                $name = '' === $given ? (string) $number : $given;
                for ($k = 2, $base = $name; isset($used[$name]); ++$k) {
                    $name = $base."_$k";
                }
                if ('' !== $given && $name !== $given) {
                    $lost->say(\sprintf('the name %s, there already, written as %s', $given, $name));
                }
                $used[$name] = true;
                $more = '';
                foreach (self::CODES as $key) {
                    $value = $f->properties[$key] ?? null;
                    $more .= null === $value ? '' : ' '.$key.'="'.Plain::xml(Plain::text($value)).'"';
                }
                fwrite($file, '<CgPoint name="'.Plain::xml($name).'"'.$more.'>'.self::place($place)."</CgPoint>\n");
            }
        }
        fwrite($file, $isOpen ? "</CgPoints>\n" : '');
    }

    /** @param resource $file */
    private function lines($file, FeatureSet $set, string $kind, string $element, ?string $naming, Lost $lost): void
    {
        $isOpen = false;
        foreach ($set->features as $i => $f) {
            if ($kind !== $f->kind) {
                continue;
            }
            fwrite($file, $isOpen ? '' : "<{$element}s>\n");
            $isOpen = true;
            if (\count($f->parts) > 1) {
                $lost->count("$kind features of several parts, written one by one");
            }
            foreach ($f->parts as $rings) {
                if (\count($rings) > 1) {
                    $lost->count('holes of polygons', \count($rings) - 1);
                }
                $name = Plain::text($f->properties[$naming ?? ''] ?? null);
                fwrite($file, "<$element name=\"".Plain::xml('' === $name ? $f->layer.' '.($i + 1) : $name).'"><CoordGeom>');
                for ($k = 1, $n = \count($rings[0]); $k < $n; ++$k) {
                    [$from, $to] = [self::place($rings[0][$k - 1]), self::place($rings[0][$k])];
                    fwrite($file, "<Line><Start>$from</Start><End>$to</End></Line>");
                }
                fwrite($file, "</CoordGeom></$element>\n");
            }
        }
        fwrite($file, $isOpen ? "</{$element}s>\n" : '');
    }

    /** @param resource $file */
    private function surfaces($file, FeatureSet $set, Lost $lost): void
    {
        $by = [];
        foreach ($set->features as $f) {
            if (Feature::FACE === $f->kind) {
                $by[$f->layer][] = $f;
            }
        }
        fwrite($file, [] === $by ? '' : "<Surfaces>\n");
        foreach ($by as $layer => $faces) {
            $number = [];
            $points = $triangles = '';
            foreach ($faces as $f) {
                foreach ($f->parts as [$ring]) {
                    $corners = [];
                    foreach (\array_slice($ring, 0, -1) as $place) {
                        $text = self::place($place, $lost);
                        if (!isset($number[$text])) {
                            $number[$text] = \count($number) + 1;
                            $points .= '<P id="'.$number[$text].'">'.$text."</P>\n";
                        }
                        $corners[] = $number[$text];
                    }
                    for ($k = 2, $n = \count($corners); $k < $n; ++$k) {
                        $triangles .= '<F>'.$corners[0].' '.$corners[$k - 1].' '.$corners[$k]."</F>\n";
                    }
                    if (\count($corners) > 3) {
                        $lost->count('faces of more than three corners, written as triangles');
                    }
                }
            }
            fwrite($file, '<Surface name="'.Plain::xml((string) $layer)."\"><Definition surfType=\"TIN\"><Pnts>\n$points</Pnts><Faces>\n"
                ."$triangles</Faces></Definition></Surface>\n");
        }
        fwrite($file, [] === $by ? '' : "</Surfaces>\n");
    }

    /** @param array{float, float, ?float} $p */
    private static function place(array $p, ?Lost $lost = null): string
    {
        if (null !== $lost && null === $p[2]) {
            $lost->count('missing heights, written as 0');
            $p[2] = 0.0;
        }

        return Plain::number($p[1]).' '.Plain::number($p[0]).(null === $p[2] ? '' : ' '.Plain::number($p[2]));
    }
}
