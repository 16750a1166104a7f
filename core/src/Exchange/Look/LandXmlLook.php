<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Exchange\LandXml\SurveyUnits;

/** LandXML 1.x: points, alignments and other lines, parcels, surfaces. Places are northing easting elevation. */
final class LandXmlLook implements XmlVisitor
{
    private const LINES = ['Alignment', 'PlanFeature', 'Breakline'];
    private const POLYGONS = ['Parcel', 'Boundary'];
    private const PLACES = ['Start', 'End', 'PI', 'P', 'CgPoint', 'Location'];

    /** @var ?array{name: string, points: int, triangles: int} surface that is open */
    private ?array $surface = null;

    /** @var array<string, true> its points by id */
    private array $points = [];

    private bool $isSeen = true;

    private function __construct(private readonly Looked $l, private readonly Systems $systems)
    {
    }

    public static function read(Looked $l, string $path, Systems $systems, string $name): void
    {
        Xml::walk($path, $name, new self($l, $systems));
    }

    public function begin(Xml $x, string $element): void
    {
        if ('Metric' === $element || 'Imperial' === $element) {
            $this->l->unit = Systems::unitOf(SurveyUnits::metre((string) $x->attribute('linearUnit')) ?? 0.0);
        } elseif ('CoordinateSystem' === $element) {
            $unit = $this->l->unit;
            if (1 === preg_match('/^(?:EPSG:)?(\d+)$/i', trim((string) $x->attribute('epsgCode')), $m)) {
                $this->systems->fromCode($this->l, (int) $m[1]);
            }
            $this->l->unit = $unit ?? $this->l->unit;
        } elseif ('Surface' === $element) {
            $this->surface = ['name' => (string) $x->attribute('name'), 'points' => 0, 'triangles' => 0];
            $this->points = [];
        } elseif ('P' === $element && null !== $this->surface) {
            ++$this->surface['points'];
            $this->points[trim((string) $x->attribute('id'))] = true;
        } elseif ('F' === $element) {
            $this->isSeen = '1' !== trim((string) $x->attribute('i'));
        } elseif (\in_array($element, self::LINES, true)) {
            $this->l->count(Looked::LINE);
        } elseif (\in_array($element, self::POLYGONS, true)) {
            $this->l->count(Looked::POLYGON);
        }
    }

    public function end(Xml $x, string $element, string $text): void
    {
        if ('Surface' === $element && null !== $this->surface) {
            $this->l->surfaces[] = $this->surface;
            $this->surface = null;
        } elseif ('F' === $element && $this->isSeen && null !== $this->surface) {
            $this->face($this->surface['name'], preg_split('/\s+/', trim($text)) ?: []);
        } elseif (\in_array($element, self::PLACES, true)) {
            $v = Xml::numbers($text);
            if (isset($v[1])) {
                $this->l->reach($v[1], $v[0], $v[2] ?? null);
                $this->l->count(Looked::POINT, 'CgPoint' === $element ? 1 : 0);
            } elseif ('CgPoint' === $element && '' !== trim($text)) {
                $this->l->warn(\sprintf('a point has no coordinates: "%s"', mb_substr(trim($text), 0, 40)));
            }
        } elseif ('PntList2D' === $element || 'PntList3D' === $element) {
            $width = 'PntList3D' === $element ? 3 : 2;
            $v = Xml::numbers($text);
            for ($i = 0; $i + $width <= \count($v); $i += $width) {
                $this->l->reach($v[$i + 1], $v[$i], 3 === $width ? $v[$i + 2] : null);
            }
        }
    }

    /** @param list<string> $corners */
    private function face(string $surface, array $corners): void
    {
        foreach ($corners as $corner) {
            if (!isset($this->points[$corner])) {
                $words = 'a face of surface "%s" names point %s, which it does not hold';
                $this->l->warn(\sprintf($words, $surface, mb_substr($corner, 0, 40)));

                return;
            }
        }
        if (\count($corners) < 3) {
            $this->l->warn(\sprintf('a face of surface "%s" has fewer than three corners', $surface));
        } elseif (null !== $this->surface) {
            $this->l->count(Looked::FACE);
            ++$this->surface['triangles'];
        }
    }
}
