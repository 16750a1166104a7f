<?php

declare(strict_types=1);

namespace Mensura\Exchange\LandXml;

use Mensura\Alignment\Alignment;
use Mensura\Alignment\Element;
use Mensura\Fault\UnusableInput;

/**
 * Alignments in LandXML 1.2: Line, Curve, Spiral (clothoids) and IrregularLine of CoordGeom; places as northing easting.
 * Lengths are brought to metres.
 */
final class LandXmlAlignments
{
    /** Metres by which an element may end beside where the file says it ends. */
    private const GAP = 0.01;

    /**
     * @param string $name for messages
     *
     * @return list<Alignment>
     *
     * @throws UnusableInput naming the alignment and its element
     */
    public static function read(string $path, string $name): array
    {
        $text = (string) @file_get_contents($path);
        $document = new \DOMDocument();
        $before = libxml_use_internal_errors(true);
        $isRead = '' !== $text && $document->loadXML($text, \LIBXML_NONET | \LIBXML_COMPACT);
        $errors = libxml_get_errors();
        libxml_clear_errors();
        libxml_use_internal_errors($before);
        if (!$isRead) {
            $e = $errors[0] ?? null;
            throw new UnusableInput(null === $e ? $name : "$name:$e->line", null === $e ? 'is empty' : trim($e->message));
        }
        if (null !== $document->doctype) {
            throw new UnusableInput($name, 'holds a document type declaration, which is not accepted');
        }
        $path = new \DOMXPath($document);
        $metre = SurveyUnits::of($path)->metre;
        $alignments = [];
        foreach ($path->query('//*[local-name()="Alignment"]') ?: [] as $node) {
            if ($node instanceof \DOMElement) {
                $alignments[] = self::alignment($node, $path, $metre, $name);
            }
        }

        return $alignments;
    }

    private static function alignment(\DOMElement $node, \DOMXPath $path, float $metre, string $file): Alignment
    {
        $name = '' === $node->getAttribute('name') ? 'alignment' : $node->getAttribute('name');
        $elements = [];
        foreach ($path->query('*[local-name()="CoordGeom"]/*', $node) ?: [] as $child) {
            if (!$child instanceof \DOMElement) {
                continue;
            }
            $where = \sprintf('%s:%d', $file, $child->getLineNo());
            $words = \sprintf('%s of %s', $child->localName, $name);
            $made = match ($child->localName) {
                'Line' => self::lines(array_map(
                    static fn (string $end): array => self::place($child, $end, $path, $metre, $where), ['Start', 'End'],
                )),
                'IrregularLine' => self::lines(self::list($child, $path, $metre, $where)),
                'Curve' => [self::arc($child, $path, $metre, $where, $words)],
                'Spiral' => [self::clothoid($child, $path, $metre, $where, $words)],
                default => throw new UnusableInput($where, $words.' is not read; lines, arcs and clothoids are'),
            };
            $before = $elements[\count($elements) - 1] ?? null;
            // A curve that sets out backwards has its sense the wrong way round.
            if (null !== $before && [0.0, 0.0] !== [$made[0]->from, $made[0]->to]
                && cos($before->at($before->length)[2] - $made[0]->bearing) < 0.0) {
                throw new UnusableInput($where, $words.' sets out against the way the alignment comes; is its rot right?');
            }
            array_push($elements, ...$made);
            [$e, $n] = $elements[\count($elements) - 1]->at($elements[\count($elements) - 1]->length);
            [$ge, $gn] = self::place($child, 'IrregularLine' === $child->localName ? 'Start' : 'End', $path, $metre, $where);
            if ('IrregularLine' !== $child->localName && hypot($e - $ge, $n - $gn) > self::GAP) {
                throw new UnusableInput($where, \sprintf(
                    '%s ends %.3f m from the end the file states; its radius, length or sense does not agree with its places', $words,
                    hypot($e - $ge, $n - $gn),
                ));
            }
        }
        if ([] === $elements) {
            $words = \sprintf('the alignment %s holds no lines or curves', $name);
            throw new UnusableInput(\sprintf('%s:%d', $file, $node->getLineNo()), $words);
        }

        $start = $node->getAttribute('staStart');

        return new Alignment($name, $elements, is_numeric($start) ? $metre * (float) $start : 0.0);
    }

    /**
     * @param list<array{float, float}> $places
     *
     * @return list<Element>
     */
    private static function lines(array $places): array
    {
        $elements = [];
        for ($i = 1, $n = \count($places); $i < $n; ++$i) {
            [$de, $dn] = [$places[$i][0] - $places[$i - 1][0], $places[$i][1] - $places[$i - 1][1]];
            $elements[] = new Element($places[$i - 1][0], $places[$i - 1][1], atan2($de, $dn), hypot($de, $dn));
        }

        return $elements;
    }

    private static function arc(\DOMElement $node, \DOMXPath $path, float $metre, string $where, string $words): Element
    {
        [$e, $n] = self::place($node, 'Start', $path, $metre, $where);
        [$ce, $cn] = self::place($node, 'Center', $path, $metre, $where);
        [$ee, $en] = self::place($node, 'End', $path, $metre, $where);
        $sign = self::sense($node, $where, $words);
        $radius = hypot($e - $ce, $n - $cn);
        if (!($radius > 0.0)) {
            throw new UnusableInput($where, $words.' begins in its own centre');
        }
        // Clockwise the bearing is that of the radius outward plus a right angle.
        $bearing = atan2($e - $ce, $n - $cn) + $sign * 0.5 * \M_PI;
        $turn = $sign * (atan2($ee - $ce, $en - $cn) - atan2($e - $ce, $n - $cn));
        $turn = fmod(fmod($turn, 2.0 * \M_PI) + 2.0 * \M_PI, 2.0 * \M_PI);

        return new Element($e, $n, $bearing, $radius * (0.0 === $turn ? 2.0 * \M_PI : $turn), $sign / $radius, $sign / $radius);
    }

    private static function clothoid(\DOMElement $node, \DOMXPath $path, float $metre, string $where, string $words): Element
    {
        $type = strtolower($node->getAttribute('spiType'));
        if ('' !== $type && 'clothoid' !== $type) {
            throw new UnusableInput($where, \sprintf('%s is a %s; of spirals only clothoids are read', $words, $type));
        }
        [$e, $n] = self::place($node, 'Start', $path, $metre, $where);
        [$pe, $pn] = self::place($node, 'PI', $path, $metre, $where);
        $length = is_numeric($node->getAttribute('length')) ? $metre * (float) $node->getAttribute('length') : 0.0;
        if (!($length > 0.0)) {
            throw new UnusableInput($where, $words.' has no length');
        }
        $sign = self::sense($node, $where, $words);
        $curvature = static function (string $attribute) use ($node, $metre, $sign): float {
            $radius = $node->getAttribute($attribute);

            return is_numeric($radius) && (float) $radius > 0.0 ? $sign / ($metre * (float) $radius) : 0.0;
        };

        return new Element($e, $n, atan2($pe - $e, $pn - $n), $length, $curvature('radiusStart'), $curvature('radiusEnd'));
    }

    private static function sense(\DOMElement $node, string $where, string $words): float
    {
        return match ($node->getAttribute('rot')) {
            'cw' => 1.0,
            'ccw' => -1.0,
            default => throw new UnusableInput($where, $words.' does not say which way it turns: rot is cw or ccw'),
        };
    }

    /** @return array{float, float} easting, northing */
    private static function place(\DOMElement $of, string $child, \DOMXPath $path, float $metre, string $where): array
    {
        $numbers = preg_split('/\s+/', trim(self::child($of, $child, $path) ?? '')) ?: [];
        if (\count($numbers) < 2 || !is_numeric($numbers[0]) || !is_numeric($numbers[1])) {
            throw new UnusableInput($where, \sprintf('%s has no place "%s" of northing and easting', $of->localName, $child));
        }

        return [$metre * (float) $numbers[1], $metre * (float) $numbers[0]];
    }

    private static function child(\DOMElement $of, string $name, \DOMXPath $path): ?string
    {
        $nodes = $path->query(\sprintf('*[local-name()="%s"]', $name), $of);

        $node = false === $nodes ? null : $nodes->item(0);

        return $node instanceof \DOMElement ? $node->textContent : null;
    }

    /** @return list<array{float, float}> */
    private static function list(\DOMElement $of, \DOMXPath $path, float $metre, string $where): array
    {
        foreach (['PntList2D' => 2, 'PntList3D' => 3] as $child => $width) {
            $text = self::child($of, $child, $path);
            if (null !== $text) {
                $numbers = array_map(floatval(...), preg_split('/\s+/', trim($text)) ?: []);
                $places = [];
                for ($i = 0; $i + $width <= \count($numbers); $i += $width) {
                    $places[] = [$metre * $numbers[$i + 1], $metre * $numbers[$i]];
                }

                return \count($places) > 1 ? $places : throw new UnusableInput($where, 'this line has fewer than two places');
            }
        }

        throw new UnusableInput($where, 'this line has no list of places');
    }
}
