<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Read;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Look\Xml;
use Mensura\Exchange\Look\XmlVisitor;

/** Placemarks of KML (OGC 12-007r2) with their names, descriptions and data; layers are Folders. */
final class KmlFeatures implements XmlVisitor
{
    private const GEOMETRIES = [
        'Point' => Feature::POINT, 'LineString' => Feature::LINE, 'LinearRing' => Feature::LINE, 'Polygon' => Feature::POLYGON,
    ];

    /** @var list<string> */
    private array $layers = [];

    /** @var array<string, string|int|float|bool|null> */
    private array $properties = [];

    /** @var list<list<list<array{float, float, ?float}>>> */
    private array $parts = [];

    /** @var list<list<array{float, float, ?float}>> */
    private array $rings = [];

    private ?string $kind = null;
    private string $field = '';

    private function __construct(private readonly FeatureSet $set, private readonly string $layer)
    {
    }

    public static function read(FeatureSet $set, string $path, string $layer, string $name): void
    {
        Xml::walk($path, $name, new self($set, $layer));
    }

    public function begin(Xml $x, string $element): void
    {
        if ('Folder' === $element || 'Document' === $element) {
            $this->layers[] = '';
        } elseif ('Placemark' === $element) {
            [$this->properties, $this->parts, $this->kind] = [[], [], null];
        } elseif (\in_array($element, ['Data', 'SimpleData'], true)) {
            $this->field = (string) $x->attribute('name');
        } elseif (isset(self::GEOMETRIES[$element]) && !\in_array('Polygon', \array_slice($x->open, 0, -1), true)) {
            $this->kind ??= self::GEOMETRIES[$element];
            $this->rings = [];
        }
    }

    public function end(Xml $x, string $element, string $text): void
    {
        $around = $x->around();
        if ('name' === $element && \in_array($around, ['Folder', 'Document'], true)) {
            $this->layers[\count($this->layers) - 1] = trim($text);
        } elseif ('Folder' === $element || 'Document' === $element) {
            array_pop($this->layers);
        } elseif ('Placemark' === $around && \in_array($element, ['name', 'description'], true)) {
            $this->properties[$element] = trim($text);
        } elseif ('SimpleData' === $element || 'value' === $element && 'Data' === $around) {
            $this->properties[$this->field] = $text;
        } elseif ('coordinates' === $element) {
            $this->rings[] = self::places($text);
        } elseif (isset(self::GEOMETRIES[$element]) && !\in_array('Polygon', \array_slice($x->open, 0, -1), true)) {
            if (self::GEOMETRIES[$element] === $this->kind && [] !== $this->rings && [] !== $this->rings[0]) {
                $this->parts[] = Feature::POINT === $this->kind ? [\array_slice($this->rings[0], 0, 1)] : $this->rings;
            }
        } elseif ('Placemark' === $element && null !== $this->kind && [] !== $this->parts) {
            $named = array_values(array_filter($this->layers, static fn (string $l): bool => '' !== $l));
            $layer = [] === $named ? $this->layer : $named[\count($named) - 1];
            $this->set->features[] = new Feature($this->kind, $layer, $this->parts, $this->properties);
        }
    }

    /** @return list<array{float, float, ?float}> */
    private static function places(string $text): array
    {
        $places = [];
        foreach (preg_split('/\s+/', trim($text)) ?: [] as $tuple) {
            $v = explode(',', $tuple);
            if (isset($v[1]) && is_numeric($v[0]) && is_numeric($v[1])) {
                $places[] = [(float) $v[0], (float) $v[1], isset($v[2]) && is_numeric($v[2]) ? (float) $v[2] : null];
            }
        }

        return $places;
    }
}
