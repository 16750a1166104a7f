<?php

declare(strict_types=1);

namespace Mensura\Exchange\LandXml;

use Mensura\Exchange\Features\Write\Plain;

/**
 * Sights as the element Survey of LandXML 1.2: a setup for each set of a station and each height of its instrument, its sights in a
 * group that names it. Second faces are written as they were read, decimal degrees and metres.
 */
final class LandXmlSights
{
    private const ANGLES = ['direction' => 'horizAngle', 'azimuth' => 'azimuth', 'zenith' => 'zenithAngle'];
    private const LENGTHS = ['slope-distance' => 'slopeDistance', 'horizontal-distance' => 'horizDistance'];
    private const SECOND = 2;

    /**
     * @param resource            $file
     * @param list<SurveySight>   $sights of one project; those of a set follow one another or not
     * @param array<string, true> $named  points whose places are in the file
     */
    public static function write($file, array $sights, array $named): void
    {
        // Directions alone go with the height their set has otherwise.
        $heights = $setups = [];
        foreach ($sights as $s) {
            if (self::isSpatial($s)) {
                $heights[$s->station."\0".$s->set] ??= $s->hi;
            }
        }
        foreach ($sights as $s) {
            $set = $s->station."\0".$s->set;
            $height = Plain::number(self::isSpatial($s) ? $s->hi : $heights[$set] ?? 0.0);
            $setups[$set."\0".$height][] = $s;
        }
        $point = static fn (string $element, string $name): string => "<$element ".(isset($named[$name]) ? 'pntRef' : 'name')
            .'="'.Plain::xml($name).'"/>';
        fwrite($file, [] === $setups ? '' : "<Survey><SurveyHeader name=\"sights\"/>\n");
        $number = 0;
        foreach ($setups as $key => $of) {
            ++$number;
            $height = substr((string) $key, 1 + (int) strrpos((string) $key, "\0"));
            fwrite($file, "<InstrumentSetup id=\"setup-$number\" stationName=\"".Plain::xml($of[0]->station).'" instrumentHeight="'
                .$height.'">'.$point('InstrumentPoint', $of[0]->station)."</InstrumentSetup>\n");
        }
        $number = 0;
        foreach ($setups as $of) {
            ++$number;
            fwrite($file, "<ObservationGroup id=\"group-$number\" setupID=\"setup-$number\">\n");
            foreach ($of as $s) {
                fwrite($file, '<RawObservation'.self::values($s).'>'.$point('TargetPoint', $s->target)."</RawObservation>\n");
            }
            fwrite($file, "</ObservationGroup>\n");
        }
        fwrite($file, [] === $setups ? '' : "</Survey>\n");
    }

    /** Whether the heights of instrument and target have a say in it. */
    private static function isSpatial(SurveySight $s): bool
    {
        return isset($s->values['zenith']) || isset($s->values['slope-distance']);
    }

    private static function values(SurveySight $s): string
    {
        $isSecond = self::SECOND === $s->face;
        $text = self::isSpatial($s) ? ' targetHeight="'.Plain::number($s->ht).'"' : '';
        foreach (self::ANGLES as $kind => $attribute) {
            if (null === $value = $s->values[$kind] ?? null) {
                continue;
            }
            if ($isSecond) {
                $value = 'zenith' === $kind ? 360.0 - $value : fmod($value + ('direction' === $kind ? 180.0 : 0.0), 360.0);
            }
            $text .= " $attribute=\"".Plain::number($value).'"';
        }
        foreach (self::LENGTHS as $kind => $attribute) {
            $text .= isset($s->values[$kind]) ? " $attribute=\"".Plain::number($s->values[$kind]).'"' : '';
        }
        $text .= null === $s->face ? '' : ' directFace="'.($isSecond ? 'false' : 'true').'"';

        return $text.(null === $s->at ? '' : ' timeStamp="'.$s->at->format('Y-m-d\TH:i:s').'"');
    }
}
