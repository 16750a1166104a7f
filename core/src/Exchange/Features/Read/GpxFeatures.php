<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Read;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Look\Xml;
use Mensura\Exchange\Look\XmlVisitor;

/** Waypoints, routes and tracks of GPX 1.0 and 1.1. */
final class GpxFeatures implements XmlVisitor
{
    private const LAYERS = ['wpt' => 'waypoints', 'rte' => 'routes', 'trk' => 'tracks'];
    private const PLACES = ['wpt', 'rtept', 'trkpt'];
    private const NO_PROPERTIES = ['rtept', 'trkseg', 'ele', 'extensions', 'link'];

    /** @var array<string, string|int|float|bool|null> */
    private array $properties = [];

    /** @var list<list<list<array{float, float, ?float}>>> */
    private array $parts = [];

    /** @var list<array{float, float, ?float}> */
    private array $line = [];

    /** @var ?array{float, float, ?float} */
    private ?array $place = null;

    private function __construct(private readonly FeatureSet $set)
    {
    }

    public static function read(FeatureSet $set, string $path, string $name): void
    {
        Xml::walk($path, $name, new self($set));
    }

    public function begin(Xml $x, string $element): void
    {
        if (isset(self::LAYERS[$element])) {
            [$this->properties, $this->parts, $this->line] = [[], [], []];
        }
        if (\in_array($element, self::PLACES, true)) {
            [$lat, $lon] = [$x->attribute('lat'), $x->attribute('lon')];
            $isPlace = is_numeric($lat) && is_numeric($lon) && abs((float) $lat) <= 90.0 && abs((float) $lon) <= 180.0;
            $this->place = $isPlace ? [(float) $lon, (float) $lat, null] : null;
        }
    }

    public function end(Xml $x, string $element, string $text): void
    {
        if ('ele' === $element && null !== $this->place && is_numeric(trim($text))) {
            $this->place[2] = (float) $text;
        } elseif (isset(self::LAYERS[$x->around()]) && !\in_array($element, self::NO_PROPERTIES, true)) {
            $this->properties[$element] = trim($text);
        }
        if (\in_array($element, ['rtept', 'trkpt'], true) && null !== $this->place) {
            $this->line[] = $this->place;
        } elseif ('trkseg' === $element || 'rte' === $element) {
            if ([] !== $this->line) {
                $this->parts[] = [$this->line];
            }
            $this->line = [];
        }
        if ('wpt' === $element && null !== $this->place) {
            $this->set->features[] = new Feature(Feature::POINT, self::LAYERS[$element], [[[$this->place]]], $this->properties);
        } elseif (\in_array($element, ['rte', 'trk'], true) && [] !== $this->parts) {
            $this->set->features[] = new Feature(Feature::LINE, self::LAYERS[$element], $this->parts, $this->properties);
        }
    }
}
