<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Read;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Look\Xml;
use Mensura\Exchange\Look\XmlVisitor;

/**
 * LandXML 1.x: points with name, code and description, plan features and breaklines of straight parts, parcels and boundaries, faces of
 * surfaces. Places are northing easting elevation. Curves and alignments are not taken apart; they are counted as left out.
 */
final class LandXmlFeatures implements XmlVisitor
{
    private const CURVED = ['Curve', 'Spiral', 'IrregularLine'];

    /** @var array<string, int> what is left out, and how often */
    private array $left = [];

    /** @var array<string, string|int|float|bool|null> of the point that is open */
    private array $point = [];

    /** @var array<string, array{float, float, ?float}> places of the points by name, for what refers to them */
    private array $named = [];

    private string $surface = '';

    /** @var array<string, array{float, float, ?float}> corners of the surface that is open */
    private array $corners = [];

    private bool $isSeen = true;

    /** @var list<array{float, float, ?float}> of the line that is open */
    private array $line = [];

    private string $lineName = '';
    private bool $isCurved = false;

    private function __construct(private readonly FeatureSet $set)
    {
    }

    /** @return list<string> what was left out */
    public static function read(FeatureSet $set, string $path, string $name): array
    {
        $self = new self($set);
        Xml::walk($path, $name, $self);

        return array_map(static fn (string $what, int $n): string => "$n $what", array_keys($self->left), $self->left);
    }

    public function begin(Xml $x, string $element): void
    {
        if ('CgPoint' === $element) {
            $this->point = [];
            foreach (['name', 'code', 'desc', 'oID', 'featureRef', 'surveyOrder', 'pntSurv', 'state', 'DTMAttribute'] as $key) {
                $value = $x->attribute($key);
                if (null !== $value) {
                    $this->point[$key] = $value;
                }
            }
            $reference = $x->attribute('pntRef');
            if (null !== $reference) {
                $this->point['pntRef'] = $reference;
            }
        } elseif ('Surface' === $element) {
            [$this->surface, $this->corners] = [(string) $x->attribute('name'), []];
        } elseif ('P' === $element) {
            $this->point = ['id' => trim((string) $x->attribute('id'))];
        } elseif ('F' === $element) {
            $this->isSeen = '1' !== trim((string) $x->attribute('i'));
        } elseif (\in_array($element, ['PlanFeature', 'Breakline', 'Parcel', 'Boundary', 'Alignment'], true)) {
            [$this->line, $this->isCurved, $this->lineName] = [[], false, (string) ($x->attribute('name') ?? $x->attribute('desc'))];
        } elseif (\in_array($element, self::CURVED, true)) {
            $this->isCurved = true;
        }
    }

    public function end(Xml $x, string $element, string $text): void
    {
        switch ($element) {
            case 'CgPoint':
                $place = self::place($text) ?? $this->named[(string) ($this->point['pntRef'] ?? '')] ?? null;
                if (null !== $place) {
                    $this->named[(string) ($this->point['name'] ?? '')] = $place;
                    unset($this->point['pntRef']);
                    $this->set->features[] = new Feature(Feature::POINT, 'CgPoints', [[[$place]]], $this->point);
                }
                break;
            case 'P':
                $place = self::place($text);
                if (null !== $place) {
                    $this->corners[(string) $this->point['id']] = $place;
                }
                break;
            case 'F':
                $this->face(preg_split('/\s+/', trim($text)) ?: []);
                break;
            case 'Start':
            case 'End':
                $place = self::place($text);
                if (null !== $place && ([] === $this->line || $this->line[\count($this->line) - 1] !== $place)) {
                    $this->line[] = $place;
                }
                break;
            case 'PntList2D':
            case 'PntList3D':
                $width = 'PntList3D' === $element ? 3 : 2;
                $v = Xml::numbers($text);
                for ($i = 0; $i + $width <= \count($v); $i += $width) {
                    $this->line[] = [$v[$i + 1], $v[$i], 3 === $width ? $v[$i + 2] : null];
                }
                break;
            case 'Alignment':
                $this->leave('alignments');
                break;
            case 'PlanFeature':
            case 'Breakline':
            case 'Parcel':
            case 'Boundary':
                $this->drawn($element);
        }
    }

    private function drawn(string $element): void
    {
        if ($this->isCurved) {
            $this->leave('lines with curves');

            return;
        }
        $isPolygon = \in_array($element, ['Parcel', 'Boundary'], true);
        if (\count($this->line) < 2) {
            return;
        }
        if ($isPolygon && $this->line[0] !== $this->line[\count($this->line) - 1]) {
            $this->line[] = $this->line[0];
        }
        $kind = $isPolygon ? Feature::POLYGON : Feature::LINE;
        $properties = '' === $this->lineName ? [] : ['name' => $this->lineName];
        $this->set->features[] = new Feature($kind, $element.'s', [[$this->line]], $properties);
    }

    /** @param list<string> $names */
    private function face(array $names): void
    {
        if (!$this->isSeen) {
            return;
        }
        $ring = [];
        foreach ($names as $name) {
            if (isset($this->corners[$name])) {
                $ring[] = $this->corners[$name];
            }
        }
        if (\count($ring) === \count($names) && \count($ring) > 2) {
            $ring[] = $ring[0];
            $this->set->features[] = new Feature(Feature::FACE, $this->surface, [[$ring]]);
        }
    }

    private function leave(string $what): void
    {
        $this->left[$what] = ($this->left[$what] ?? 0) + 1;
    }

    /** @return ?array{float, float, ?float} */
    private static function place(string $text): ?array
    {
        $v = Xml::numbers($text);

        return isset($v[1]) ? [$v[1], $v[0], $v[2] ?? null] : null;
    }
}
