<?php

declare(strict_types=1);

namespace Mensura\Exchange\LandXml;

use Mensura\Alignment\Alignment;
use Mensura\Alignment\Element;
use Mensura\Exchange\Features\Write\Plain;

/**
 * Points, sights, lines, surfaces and alignments as LandXML 1.2, metres: surfaces as Pnts (northing easting elevation) and Faces, lines as
 * PlanFeatures, alignments as CoordGeom of Line, Curve and Spiral with radius, length and sense. What is written reads back to the
 * last figure.
 */
final class LandXmlDesign
{
    /** Curvature that no figure of a radius shows: 1/m. */
    private const STRAIGHT = 1e-9;

    /** @var resource */
    private $file;

    /** @var array<string, true> points whose places are in it */
    private array $named = [];

    public function __construct(string $path, string $project, \DateTimeImmutable $at)
    {
        $this->file = fopen($path, 'w') ?: throw new \RuntimeException($path.' cannot be written.');
        fwrite($this->file, "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<LandXML xmlns=\"http://www.landxml.org/schema/LandXML-1.2\" "
            .'version="1.2" date="'.$at->format('Y-m-d').'" time="'.$at->format('H:i:s')."\">\n"
            .'<Units><Metric linearUnit="meter" areaUnit="squareMeter" volumeUnit="cubicMeter" temperatureUnit="celsius" '
            ."pressureUnit=\"milliBars\" angularUnit=\"decimal degrees\" directionUnit=\"decimal degrees\"/></Units>\n"
            .'<Project name="'.Plain::xml($project)."\"/>\n");
    }

    public function system(string $name, ?string $code): void
    {
        $epsg = null !== $code && str_starts_with($code, 'EPSG:') ? ' epsgCode="'.substr($code, 5).'"' : '';
        fwrite($this->file, '<CoordinateSystem desc="'.Plain::xml($name)."\"$epsg/>\n");
    }

    /** @param iterable<array{name: string, e: float, n: float, h: ?float, code: string, ...}> $points */
    public function points(iterable $points): void
    {
        $isOpen = false;
        foreach ($points as $p) {
            $this->named[$p['name']] = true;
            $code = '' === $p['code'] ? '' : ' code="'.Plain::xml($p['code']).'"';
            $height = null === $p['h'] ? '' : ' '.Plain::number($p['h']);
            fwrite($this->file, ($isOpen ? '' : "<CgPoints>\n").'<CgPoint name="'.Plain::xml($p['name'])."\"$code>"
                .Plain::number($p['n']).' '.Plain::number($p['e'])."$height</CgPoint>\n");
            $isOpen = true;
        }
        fwrite($this->file, $isOpen ? "</CgPoints>\n" : '');
    }

    /** @param list<array{name: string, vertices: list<array{float, float, float}>}> $lines as plan features */
    public function lines(array $lines): void
    {
        fwrite($this->file, [] === $lines ? '' : "<PlanFeatures>\n");
        foreach ($lines as $line) {
            fwrite($this->file, '<PlanFeature name="'.Plain::xml($line['name']).'"><CoordGeom>');
            $place = static fn (array $v): string => Plain::number($v[1]).' '.Plain::number($v[0]).' '.Plain::number($v[2]);
            foreach ($line['vertices'] as $i => $vertex) {
                if ($i > 0) {
                    $from = $place($line['vertices'][$i - 1]);
                    fwrite($this->file, "<Line><Start>$from</Start><End>".$place($vertex).'</End></Line>');
                }
            }
            fwrite($this->file, "</CoordGeom></PlanFeature>\n");
        }
        fwrite($this->file, [] === $lines ? '' : "</PlanFeatures>\n");
    }

    /** @param list<Alignment> $alignments */
    public function alignments(array $alignments): void
    {
        fwrite($this->file, [] === $alignments ? '' : "<Alignments>\n");
        foreach ($alignments as $a) {
            fwrite($this->file, '<Alignment name="'.Plain::xml($a->name).'" length="'.Plain::number($a->length).'" staStart="'
                .Plain::number($a->start)."\"><CoordGeom>\n");
            foreach ($a->elements as $element) {
                fwrite($this->file, self::element($element)."\n");
            }
            fwrite($this->file, "</CoordGeom></Alignment>\n");
        }
        fwrite($this->file, [] === $alignments ? '' : "</Alignments>\n");
    }

    /** @param list<SurveySight> $sights after the points they go between */
    public function sights(array $sights): void
    {
        LandXmlSights::write($this->file, $sights, $this->named);
    }

    /** @param iterable<array{string, list<float>, list<float>, list<float>, list<int>}> $surfaces name, x, y, z, corners three a face */
    public function surfaces(iterable $surfaces): void
    {
        $isOpen = false;
        foreach ($surfaces as [$name, $x, $y, $z, $triangles]) {
            fwrite($this->file, ($isOpen ? '' : "<Surfaces>\n").'<Surface name="'.Plain::xml($name)
                ."\"><Definition surfType=\"TIN\"><Pnts>\n");
            $isOpen = true;
            foreach ($x as $i => $e) {
                fwrite($this->file, '<P id="'.($i + 1).'">'.Plain::number($y[$i]).' '.Plain::number($e).' '.Plain::number($z[$i])."</P>\n");
            }
            fwrite($this->file, "</Pnts><Faces>\n");
            for ($h = 0, $n = \count($triangles); $h < $n; $h += 3) {
                fwrite($this->file, '<F>'.($triangles[$h] + 1).' '.($triangles[$h + 1] + 1).' '.($triangles[$h + 2] + 1)."</F>\n");
            }
            fwrite($this->file, "</Faces></Definition></Surface>\n");
        }
        fwrite($this->file, $isOpen ? "</Surfaces>\n" : '');
    }

    public function close(): void
    {
        fwrite($this->file, "</LandXML>\n");
        fclose($this->file);
    }

    private static function element(Element $x): string
    {
        $place = static fn (float $e, float $n): string => Plain::number($n).' '.Plain::number($e);
        [$ee, $en, $out] = $x->at($x->length);
        $ends = '<Start>'.$place($x->e, $x->n).'</Start>';
        $end = '<End>'.$place($ee, $en).'</End>';
        $length = 'length="'.Plain::number($x->length).'"';
        $rot = ' rot="'.($x->from + $x->to > 0.0 ? 'cw' : 'ccw').'"';
        if (abs($x->from) < self::STRAIGHT && abs($x->to) < self::STRAIGHT) {
            return "<Line $length>$ends$end</Line>";
        }
        if ($x->from === $x->to) {
            $radius = 1.0 / $x->from;
            // To the right of the way it sets out; to the left where the radius is negative.
            $centre = '<Center>'.$place($x->e + $radius * cos($x->bearing), $x->n - $radius * sin($x->bearing)).'</Center>';

            return '<Curve crvType="arc"'.$rot.' radius="'.Plain::number(abs($radius))."\" $length>$ends$centre$end</Curve>";
        }
        // Where the tangents at both ends meet.
        $turn = sin($out - $x->bearing);
        $along = 0.0 === $turn ? 0.5 * $x->length : (($ee - $x->e) * cos($out) - ($en - $x->n) * sin($out)) / -$turn;
        $meet = $place($x->e + $along * sin($x->bearing), $x->n + $along * cos($x->bearing));
        $radius = static fn (float $curvature): string => abs($curvature) < self::STRAIGHT ? 'INF' : Plain::number(abs(1.0 / $curvature));

        return "<Spiral $length".' radiusStart="'.$radius($x->from).'" radiusEnd="'.$radius($x->to).'"'.$rot
            .' spiType="clothoid">'."$ends<PI>$meet</PI>$end</Spiral>";
    }
}
