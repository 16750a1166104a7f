<?php

declare(strict_types=1);

namespace Demo;

use Mensura\Alignment\Element;

/** The axis of a haul road from the borrow pit to the heap, as it was designed: line, clothoid, arc, clothoid, line. */
final class HaulRoad
{
    public const FILE = 'haul-road.xml';
    public const NAME = 'haul road';
    private const BEGIN = [493540.0, 6028040.0];
    private const BEARING = 62.0;
    private const RADIUS = 45.0;
    /** Kind, length in metres, curvature at begin and end in parts of that of the arc. */
    private const PARTS = [
        ['Line', 30.0, 0.0, 0.0], ['Spiral', 20.0, 0.0, 1.0], ['Curve', 28.7, 1.0, 1.0], ['Spiral', 20.0, 1.0, 0.0],
        ['Line', 100.0, 0.0, 0.0],
    ];

    public function design(): string
    {
        [$e, $n, $bearing] = [...self::BEGIN, deg2rad(self::BEARING)];
        $text = '';
        foreach (self::PARTS as [$kind, $length, $from, $to]) {
            $element = new Element($e, $n, $bearing, $length, -$from / self::RADIUS, -$to / self::RADIUS);
            $end = $element->at($length);
            $text .= self::element($kind, $element, $from, $to, $end)."\n";
            [$e, $n, $bearing] = $end;
        }
        $units = '<Units><Metric areaUnit="squareMeter" linearUnit="meter" volumeUnit="cubicMeter" temperatureUnit="celsius"'
            .' pressureUnit="milliBars"/></Units>';
        $head = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<LandXML xmlns=\"http://www.landxml.org/schema/LandXML-1.2\" version=\"1.2\">";
        $length = array_sum(array_column(self::PARTS, 1));

        $open = \sprintf('<Alignments><Alignment name="%s" length="%.3F" staStart="0"><CoordGeom>', self::NAME, $length);

        return "$head$units\n$open\n".$text."</CoordGeom></Alignment></Alignments></LandXML>\n";
    }

    /** @param array{float, float, float} $end */
    private static function element(string $kind, Element $x, float $from, float $to, array $end): string
    {
        $place = static fn (string $name, float $e, float $n): string => \sprintf('<%1$s>%2$.6F %3$.6F</%1$s>', $name, $n, $e);
        [$ee, $en, $eb] = $end;
        $start = $place('Start', $x->e, $x->n);
        $last = $place('End', $ee, $en);
        if ('Line' === $kind) {
            return "<Line>$start$last</Line>";
        }
        if ('Curve' === $kind) {
            $left = $x->bearing - 0.5 * \M_PI;
            $centre = $place('Center', $x->e + self::RADIUS * sin($left), $x->n + self::RADIUS * cos($left));

            return \sprintf('<Curve rot="ccw" crvType="arc" radius="%.3F">%s%s%s</Curve>', self::RADIUS, $start, $centre, $last);
        }
        // The tangents at both ends meet in the PI.
        $t = (($ee - $x->e) * cos($eb) - ($en - $x->n) * sin($eb)) / sin($x->bearing - $eb);
        $radius = static fn (float $part): string => 0.0 === $part ? 'INF' : \sprintf('%.3F', self::RADIUS);

        $pi = $place('PI', $x->e + $t * sin($x->bearing), $x->n + $t * cos($x->bearing));

        return \sprintf(
            '<Spiral length="%.3F" radiusStart="%s" radiusEnd="%s" rot="ccw" spiType="clothoid">%s%s%s</Spiral>', $x->length,
            $radius($from), $radius($to), $start, $pi, $last,
        );
    }
}
