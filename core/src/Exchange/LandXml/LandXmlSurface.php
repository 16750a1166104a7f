<?php

declare(strict_types=1);

namespace Mensura\Exchange\LandXml;

use Mensura\Fault\UnusableInput;
use Mensura\Surface\Tin;

/**
 * Surfaces in LandXML 1.2: Pnts as northing easting elevation, Faces as point ids. Metres; other units that the file states are
 * brought to them.
 */
final class LandXmlSurface
{
    private const NAMESPACE = 'http://www.landxml.org/schema/LandXML-1.2';

    public static function write(Tin $tin, string $name, \DateTimeImmutable $at): string
    {
        $xml = new \XMLWriter();
        $xml->openMemory();
        $xml->startDocument('1.0', 'UTF-8');
        $xml->startElementNs(null, 'LandXML', self::NAMESPACE);
        $xml->writeAttribute('version', '1.2');
        $xml->writeAttribute('date', $at->format('Y-m-d'));
        $xml->writeAttribute('time', $at->format('H:i:s'));
        $xml->startElement('Units');
        $xml->startElement('Metric');
        foreach ([
            'areaUnit' => 'squareMeter', 'linearUnit' => 'meter', 'volumeUnit' => 'cubicMeter',
            'temperatureUnit' => 'celsius', 'pressureUnit' => 'milliBars', 'angularUnit' => 'decimal degrees',
            'directionUnit' => 'decimal degrees',
        ] as $key => $value) {
            $xml->writeAttribute($key, $value);
        }
        $xml->endElement();
        $xml->endElement();
        $xml->startElement('Surfaces');
        $xml->startElement('Surface');
        $xml->writeAttribute('name', $name);
        $xml->startElement('Definition');
        $xml->writeAttribute('surfType', 'TIN');
        $xml->startElement('Pnts');
        $used = [];
        foreach ($tin->triangles as $v) {
            $used[$v] = true;
        }
        ksort($used);
        foreach ($used as $v => $true) {
            $xml->startElement('P');
            $xml->writeAttribute('id', (string) ($v + 1));
            $xml->text(json_encode($tin->y[$v]).' '.json_encode($tin->x[$v]).' '.json_encode(round($tin->z[$v], 9)));
            $xml->endElement();
        }
        $xml->endElement();
        $xml->startElement('Faces');
        for ($h = 0, $n = \count($tin->triangles); $h < $n; $h += 3) {
            $xml->writeElement('F', ($tin->triangles[$h] + 1).' '.($tin->triangles[$h + 1] + 1).' '.($tin->triangles[$h + 2] + 1));
        }
        $xml->endDocument();

        return $xml->outputMemory();
    }

    /**
     * The first surface of a file, its faces seen from above; upright ones are left out.
     *
     * @throws UnusableInput
     */
    public static function read(string $path): Tin
    {
        [$x, $y, $z, $faces] = self::faces($path);
        $triangles = [];
        for ($h = 0, $end = \count($faces); $h < $end; $h += 3) {
            [$a, $b, $c] = [$faces[$h], $faces[$h + 1], $faces[$h + 2]];
            $area = ($x[$b] - $x[$a]) * ($y[$c] - $y[$a]) - ($x[$c] - $x[$a]) * ($y[$b] - $y[$a]);
            if (0.0 !== $area) {
                array_push($triangles, $a, $area > 0.0 ? $b : $c, $area > 0.0 ? $c : $b);
            }
        }
        if ([] === $triangles) {
            throw new UnusableInput($path, 'holds no surface with faces');
        }

        return Tin::ofTriangles($x, $y, $z, $triangles);
    }

    /**
     * The first surface of a file as it stands there. External entities are never loaded.
     *
     * @return array{list<float>, list<float>, list<float>, list<int>} x, y, z, and corners three a face
     *
     * @throws UnusableInput
     */
    public static function faces(string $path): array
    {
        foreach (self::all($path) as [, $x, $y, $z, $triangles]) {
            return [] === $triangles ? throw new UnusableInput($path, 'holds no surface with faces') : [$x, $y, $z, $triangles];
        }

        throw new UnusableInput($path, 'holds no surface with faces');
    }

    /**
     * Every surface of a file as it stands there, one after the other. External entities are never loaded.
     *
     * @return \Generator<array{string, list<float>, list<float>, list<float>, list<int>}> name, x, y, z, and corners three a face
     *
     * @throws UnusableInput
     */
    public static function all(string $path): \Generator
    {
        $xml = new \XMLReader();
        if (!@$xml->open($path, null, \LIBXML_NONET | \LIBXML_COMPACT)) {
            throw new UnusableInput($path, 'cannot be read');
        }
        $before = libxml_use_internal_errors(true);
        try {
            yield from self::surfaces($xml, $path);
            $errors = libxml_get_errors();
        } finally {
            libxml_clear_errors();
            libxml_use_internal_errors($before);
        }
        if ([] !== $errors) {
            throw new UnusableInput($path.' line '.$errors[0]->line, trim($errors[0]->message));
        }
    }

    /** @return \Generator<array{string, list<float>, list<float>, list<float>, list<int>}> */
    private static function surfaces(\XMLReader $xml, string $path): \Generator
    {
        $number = $x = $y = $z = $triangles = [];
        $name = null;
        $metre = 1.0;
        while ($xml->read()) {
            if (\XMLReader::DOC_TYPE === $xml->nodeType) {
                throw new UnusableInput($path, 'holds a document type declaration, which is not accepted');
            }
            if ('Surface' === $xml->localName && null !== $name && \XMLReader::END_ELEMENT === $xml->nodeType) {
                yield [$name, $x, $y, $z, $triangles];
                $number = $x = $y = $z = $triangles = [];
                $name = null;
            }
            if (\XMLReader::ELEMENT !== $xml->nodeType) {
                continue;
            }
            if (\in_array($xml->localName, ['Metric', 'Imperial'], true) && null !== $unit = $xml->getAttribute('linearUnit')) {
                $metre = SurveyUnits::metre($unit) ?? throw new UnusableInput($path, "linearUnit \"$unit\" is not known");
            }
            if ('Surface' === $xml->localName) {
                $name = (string) $xml->getAttribute('name');
            } elseif ('P' === $xml->localName && null !== $name) {
                $id = (string) $xml->getAttribute('id');
                $values = preg_split('/\s+/', trim($xml->readString())) ?: [];
                $isNumber = static fn (string $v): bool => is_numeric($v) && is_finite((float) $v);
                $numbers = array_filter(\array_slice($values, 0, 3), $isNumber);
                if (3 !== \count($numbers)) {
                    throw new UnusableInput($path, \sprintf('point "%s" is not "northing easting elevation"', $id));
                }
                $number[$id] = \count($x);
                $y[] = $metre * (float) $values[0];
                $x[] = $metre * (float) $values[1];
                $z[] = $metre * (float) $values[2];
            } elseif ('F' === $xml->localName && null !== $name && '1' !== $xml->getAttribute('i')) {
                $ids = preg_split('/\s+/', trim($xml->readString())) ?: [];
                if (3 !== \count($ids)) {
                    throw new UnusableInput($path, 'a face does not have three points');
                }
                foreach ($ids as $id) {
                    $triangles[] = $number[$id]
                        ?? throw new UnusableInput($path, \sprintf('a face names point "%s", which is not there', $id));
                }
            }
        }
    }
}
