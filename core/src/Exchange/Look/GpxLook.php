<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

/** GPX 1.0 and 1.1: waypoints are points, routes and tracks are lines. */
final class GpxLook implements XmlVisitor
{
    private const LAYERS = ['wpt' => 'waypoints', 'rte' => 'routes', 'trk' => 'tracks'];

    private const POINTS = ['wpt', 'rtept', 'trkpt'];
    private const NO_ATTRIBUTES = ['rtept', 'trkseg', 'ele', 'extensions', 'link'];

    /** @var ?array{float, float} longitude and latitude of the point that is open */
    private ?array $place = null;

    private function __construct(private readonly Looked $l)
    {
    }

    public static function read(Looked $l, string $path, string $name): void
    {
        $l->crs = 'EPSG:4326';
        $l->unit = 'degree';
        Xml::walk($path, $name, new self($l));
    }

    public function begin(Xml $x, string $element): void
    {
        if (isset(self::LAYERS[$element])) {
            $this->l->count('wpt' === $element ? Looked::POINT : Looked::LINE);
            $this->l->layer(self::LAYERS[$element]);
        }
        if (!\in_array($element, self::POINTS, true)) {
            return;
        }
        $lat = $x->attribute('lat');
        $lon = $x->attribute('lon');
        if (!is_numeric($lat) || !is_numeric($lon) || abs((float) $lat) > 90.0 || abs((float) $lon) > 180.0) {
            $this->place = null;
            $this->l->warn(\sprintf('a %s has no latitude and longitude', $element));
        } else {
            $this->place = [(float) $lon, (float) $lat];
            $this->l->reach(...$this->place);
        }
    }

    public function end(Xml $x, string $element, string $text): void
    {
        if ('ele' === $element && null !== $this->place && is_numeric(trim($text)) && \in_array($x->around(), self::POINTS, true)) {
            $this->l->reach($this->place[0], $this->place[1], (float) $text);
        }
        if (isset(self::LAYERS[$x->around()]) && !\in_array($element, self::NO_ATTRIBUTES, true)) {
            $this->l->attribute($element);
        }
    }
}
