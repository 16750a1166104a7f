<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

/** KML (OGC 12-007r2): one feature a Placemark, layers are Folders and the Documents within the outermost. */
final class KmlLook implements XmlVisitor
{
    private const KINDS = [
        'Point' => Looked::POINT, 'LineString' => Looked::LINE, 'LinearRing' => Looked::LINE, 'Polygon' => Looked::POLYGON,
        'Track' => Looked::LINE, 'MultiTrack' => Looked::LINE,
    ];

    /** @var list<?string> names of the Folders and Documents that are open; null for the outermost Document */
    private array $layers = [];

    private int $documents = 0;
    private ?string $kind = null;
    private bool $hasPlaces = false;

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
        if ('Folder' === $element || 'Document' === $element) {
            $isOutermost = 'Document' === $element && 0 === $this->documents && [] === $this->layers;
            $this->documents += 'Document' === $element ? 1 : 0;
            $this->layers[] = $isOutermost ? null : '';
        } elseif ('Placemark' === $element) {
            [$this->kind, $this->hasPlaces] = [null, false];
        } elseif (isset(self::KINDS[$element]) && \in_array('Placemark', $x->open, true)) {
            $this->kind ??= self::KINDS[$element];
        } elseif (\in_array($element, ['Data', 'SimpleData', 'SimpleField'], true) && null !== $field = $x->attribute('name')) {
            $this->l->attribute($field);
        }
    }

    public function end(Xml $x, string $element, string $text): void
    {
        $top = \count($this->layers) - 1;
        if ('name' === $element && $top >= 0 && null !== $this->layers[$top] && \in_array($x->around(), ['Folder', 'Document'], true)) {
            $this->layers[$top] = trim($text);
            $this->l->layer(trim($text), 0);
        } elseif ('coordinates' === $element && \in_array('Placemark', $x->open, true)) {
            foreach (preg_split('/\s+/', trim($text)) ?: [] as $tuple) {
                $this->place(explode(',', $tuple));
            }
        } elseif ('coord' === $element && \in_array('Placemark', $x->open, true)) {
            $this->place(preg_split('/\s+/', trim($text)) ?: []);
        } elseif ('Placemark' === $element) {
            $this->placemark();
        } elseif ('Folder' === $element || 'Document' === $element) {
            array_pop($this->layers);
        }
    }

    /** @param list<string> $v */
    private function place(array $v): void
    {
        if (isset($v[1]) && is_numeric($v[0]) && is_numeric($v[1])) {
            $this->hasPlaces = true;
            $this->l->reach((float) $v[0], (float) $v[1], isset($v[2]) && is_numeric($v[2]) ? (float) $v[2] : null);
        }
    }

    private function placemark(): void
    {
        if (null !== $this->kind && $this->hasPlaces) {
            $this->l->count($this->kind);
        }
        foreach (array_reverse($this->layers) as $layer) {
            if (null !== $layer) {
                $this->l->layer('' === $layer ? 'folder' : $layer);
                break;
            }
        }
        $this->kind = null;
    }
}
