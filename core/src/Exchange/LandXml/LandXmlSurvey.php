<?php

declare(strict_types=1);

namespace Mensura\Exchange\LandXml;

use Mensura\Exchange\Delimited\Finding;
use Mensura\Exchange\Delimited\PointRecord;
use Mensura\Fault\UnusableInput;

/**
 * Points and survey observations of a LandXML file (schema LandXML 1.0 to 1.2, elements CgPoints and Survey).
 *
 * Read are CgPoint, InstrumentSetup, TargetSetup, RawObservation, ReducedObservation and Backsight, the observations below a
 * setup or in a group that names it. Zenith angles above half a turn, and directions with directFace="false" that have none,
 * were read in the second face and are brought to the first. What cannot be used is named by its line.
 */
final class LandXmlSurvey
{
    /** No sight is longer, metres. */
    private const LONGEST = 20000.0;

    /** @var list<SurveySight> */
    public array $sights = [];

    /** @var list<PointRecord> */
    public array $points = [];

    /** @var list<Finding> */
    public array $findings = [];

    public int $leftOut = 0;

    private readonly SurveyUnits $units;
    private readonly \DOMXPath $path;

    /** @var array<string, string> names of points by what refers to them */
    private array $named = [];

    /** @var array<string, \DOMElement> */
    private array $targets = [];

    /** @param array<string, string> $names what names stand for */
    private function __construct(\DOMDocument $document, private readonly array $names)
    {
        $this->path = new \DOMXPath($document);
        $this->units = SurveyUnits::of($this->path);
        foreach ($this->all('//*[local-name()="CgPoint"]') as $point) {
            $this->point($point);
        }
        foreach ($this->all('//*[local-name()="TargetSetup"]') as $target) {
            $this->targets[$target->getAttribute('id')] = $target;
        }
        $setups = [];
        foreach ($this->all('//*[local-name()="InstrumentSetup"]') as $setup) {
            $setups[$setup->getAttribute('id')] = $setup;
        }
        $seen = [];
        foreach ($this->all('//*[local-name()="RawObservation" or local-name()="ReducedObservation"]') as $sight) {
            $setup = $this->setupOf($sight, $setups);
            if (null !== $setup && null !== $target = $this->sight($setup, $sight)) {
                $seen[$setup->getAttribute('id')][$target] = true;
            }
        }
        foreach ($setups as $id => $setup) {
            $this->backsight($setup, $seen[$id] ?? []);
        }
    }

    /**
     * External entities are never loaded.
     *
     * @param array<string, string> $names what names stand for
     *
     * @throws UnusableInput naming the line
     */
    public static function read(string $bytes, array $names = []): self
    {
        $before = libxml_use_internal_errors(true);
        $document = new \DOMDocument();
        $isRead = $document->loadXML($bytes, \LIBXML_NONET | \LIBXML_COMPACT | \LIBXML_BIGLINES);
        $error = libxml_get_errors()[0] ?? null;
        libxml_clear_errors();
        libxml_use_internal_errors($before);
        if (!$isRead) {
            throw new UnusableInput('line '.($error->line ?? 1), 'is not well-formed XML: '.trim($error->message ?? ''));
        }
        if (null !== $document->doctype) {
            throw new UnusableInput('', 'holds a document type declaration, which is not accepted');
        }
        if ('LandXML' !== $document->documentElement?->localName) {
            throw new UnusableInput('', 'is XML, but not LandXML');
        }

        return new self($document, $names);
    }

    /** @return list<\DOMElement> */
    private function all(string $query, ?\DOMElement $within = null): array
    {
        $nodes = $this->path->query($query, $within);

        return false === $nodes ? [] : array_values(array_filter(
            iterator_to_array($nodes), static fn (\DOMNode|\DOMNameSpaceNode $n): bool => $n instanceof \DOMElement,
        ));
    }

    private function child(\DOMElement $of, string $name): ?\DOMElement
    {
        return $this->all("./*[local-name()=\"$name\"]", $of)[0] ?? null;
    }

    private function point(\DOMElement $point): void
    {
        $own = $point->getAttribute('name');
        $name = $this->names[$own] ?? $own;
        if ('' === $name) {
            return; // a reference to another point, or one that carries no name to be known by
        }
        $this->named[$own] = $name;
        $this->named[$point->getAttribute('id') ?: $own] = $name;
        $values = preg_split('/\s+/', trim($point->textContent)) ?: [];
        if ([''] === $values) {
            return;
        }
        if (\count($values) < 2 || \count($values) !== \count(array_filter($values, is_numeric(...)))) {
            $this->bad($point, "point \"$name\" is not \"northing easting elevation\"");

            return;
        }
        $n = (float) $values[0] * $this->units->metre;
        $e = (float) $values[1] * $this->units->metre;
        $this->points[] = new PointRecord(
            $point->getLineNo(), $name, $e, $n, null, null, isset($values[2]) ? (float) $values[2] * $this->units->metre : null,
            $point->getAttribute('code'), '', [null, null, null],
        );
    }

    /** @param array<string, \DOMElement> $setups */
    private function setupOf(\DOMElement $sight, array $setups): ?\DOMElement
    {
        for ($up = $sight; $up instanceof \DOMElement; $up = $up->parentNode) {
            if ('InstrumentSetup' === $up->localName) {
                return $up;
            }
            $id = $up->getAttribute('setupID');
            if ('' !== $id) {
                if (!isset($setups[$id])) {
                    $this->bad($sight, "its setup \"$id\" is not in the file");

                    return null;
                }

                return $setups[$id];
            }
        }
        if (1 === \count($setups)) {
            return reset($setups);
        }
        $this->bad($sight, 'it names no setup (setupID)');

        return null;
    }

    /** @return ?string its target */
    private function sight(\DOMElement $setup, \DOMElement $sight): ?string
    {
        $station = $this->station($setup);
        $point = $this->child($sight, 'TargetPoint');
        $target = null === $point ? '' : $this->nameOf($point);
        if ('' === $station || '' === $target) {
            return $this->bad($sight, '' === $station ? 'the setup names no station' : 'it names no target (TargetPoint)');
        }
        if ($station === $target) {
            return $this->bad($sight, "\"$target\" sights itself");
        }
        $own = $this->targets[$sight->getAttribute('targetSetupID')] ?? null;
        $hi = $this->length($setup, 'instrumentHeight');
        $ht = $this->length($sight, 'targetHeight') ?? (null === $own ? null : $this->length($own, 'targetHeight'));
        $read = [
            'direction' => $this->angle($sight, 'horizAngle', $this->units->angle),
            'azimuth' => $this->angle($sight, 'azimuth', $this->units->direction),
            'zenith' => $this->angle($sight, 'zenithAngle', $this->units->angle),
            'slope-distance' => $this->length($sight, 'slopeDistance'),
            'horizontal-distance' => $this->length($sight, 'horizDistance'),
        ];
        foreach ($read as $kind => $value) {
            if (\is_float($value) && is_nan($value)) {
                return $this->bad($sight, "its $kind is not a number");
            }
        }
        if (\is_float($hi) && is_nan($hi) || \is_float($ht) && is_nan($ht)) {
            return $this->bad($sight, 'its instrument or target height is not a number');
        }
        $values = array_filter($read, static fn (?float $v): bool => null !== $v);
        if (isset($values['direction'])) {
            unset($values['azimuth']); // the azimuth is what the instrument made of the direction
        }
        if (null !== $fault = self::impossible($values, $hi ?? 0.0, $ht ?? 0.0)) {
            return $this->bad($sight, $fault);
        }
        $this->doubts($sight, $values, $hi, $ht);
        if ([] === $values) {
            return $this->bad($sight, 'it holds no angle and no distance');
        }
        [$values, $face] = self::firstFace($values, $sight->getAttribute('directFace'));
        $round = $sight->getAttribute('setID');
        for ($up = $sight->parentNode; '' === $round && $up instanceof \DOMElement; $up = $up->parentNode) {
            $round = $up->getAttribute('setID');
        }
        $this->sights[] = new SurveySight(
            $sight->getLineNo(), $station, $setup->getAttribute('id'),
            $setup->getAttribute('id').('' === $round ? '' : '/'.$round), $target,
            $hi ?? 0.0, $ht ?? 0.0, $face, $values, self::time($sight->getAttribute('timeStamp')),
        );

        return $target;
    }

    /** @param array<string, true> $seen targets sighted from the setup */
    private function backsight(\DOMElement $setup, array $seen): void
    {
        $back = $this->child($setup, 'Backsight');
        $point = null === $back ? null : $this->child($back, 'BacksightPoint');
        if (null === $back || null === $point || '' === $back->getAttribute('circle')) {
            return;
        }
        $target = $this->nameOf($point);
        $station = $this->station($setup);
        $circle = $this->angle($back, 'circle', $this->units->angle);
        if ('' === $target || '' === $station || $target === $station || isset($seen[$target]) || null === $circle || is_nan($circle)) {
            return;
        }
        $this->sights[] = new SurveySight(
            $back->getLineNo(), $station, $setup->getAttribute('id'), $setup->getAttribute('id'), $target, 0.0, 0.0,
            null, ['direction' => self::turn($circle)], null,
        );
    }

    private function station(\DOMElement $setup): string
    {
        $point = $this->child($setup, 'InstrumentPoint');
        $name = null === $point ? '' : $this->nameOf($point);
        if ('' !== $name) {
            return $name;
        }
        $stated = $setup->getAttribute('stationName');

        return $this->names[$stated] ?? $stated;
    }

    private function nameOf(\DOMElement $point): string
    {
        $ref = $point->getAttribute('pntRef') ?: $point->getAttribute('name');

        return $this->named[$ref] ?? $this->names[$ref] ?? $ref;
    }

    /** @return ?float metres, NAN when it is no number */
    private function length(\DOMElement $of, string $attribute): ?float
    {
        $text = trim($of->getAttribute($attribute));
        if ('' === $text) {
            return null;
        }

        return is_numeric($text) && is_finite((float) $text) ? (float) $text * $this->units->metre : \NAN;
    }

    /** @return ?float degrees, NAN when it is no number */
    private function angle(\DOMElement $of, string $attribute, ?float $halfTurn): ?float
    {
        $text = trim($of->getAttribute($attribute));

        return '' === $text ? null : SurveyUnits::degrees($text, $halfTurn) ?? \NAN;
    }

    /** @param array<string, float> $values */
    private static function impossible(array $values, float $hi, float $ht): ?string
    {
        foreach (['slope-distance', 'horizontal-distance'] as $kind) {
            if (isset($values[$kind]) && ($values[$kind] <= 0.0 || $values[$kind] > self::LONGEST)) {
                return \sprintf('%s: %s m cannot be', $kind, $values[$kind]);
            }
        }
        $z = $values['zenith'] ?? 90.0;
        if ($z <= 0.0 || $z >= 360.0 || abs($z - 180.0) < 1.0) {
            return \sprintf('zenith angle: %s degrees cannot be', $z);
        }

        return abs($hi) > 15.0 || abs($ht) > 15.0 ? \sprintf('heights %.3f and %.3f m: is the unit right?', $hi, $ht) : null;
    }

    /** @param array<string, float> $values */
    private function doubts(\DOMElement $sight, array $values, ?float $hi, ?float $ht): void
    {
        if (isset($values['zenith']) && (null === $hi || null === $ht)) {
            $this->findings[] = new Finding(Finding::WARNING, $sight->getLineNo(), \sprintf(
                'the %s height is not stated and taken as 0', null === $hi ? 'instrument' : 'target',
            ));
        }
        if ('' !== $sight->getAttribute('vertDistance')) {
            $this->findings[] = new Finding(
                Finding::WARNING, $sight->getLineNo(), 'its vertical distance is not taken: the file does not say between which heights',
            );
        }
        if (null !== $this->child($sight, 'OffsetVals')) {
            $this->findings[] = new Finding(
                Finding::WARNING, $sight->getLineNo(), 'the target stood off its mark; enter the offset under Network, Setups',
            );
        }
    }

    /**
     * @param array<string, float> $values
     *
     * @return array{array<string, float>, ?int}
     */
    private static function firstFace(array $values, string $direct): array
    {
        $face = match (strtolower($direct)) {
            'true', '1' => 1,
            'false', '0' => 2,
            default => null,
        };
        $isTurned = isset($values['zenith']) ? $values['zenith'] > 180.0 : 2 === $face;
        if ($isTurned) {
            $face = 2;
            if (isset($values['zenith'])) {
                $values['zenith'] = 360.0 - $values['zenith'];
            }
            if (isset($values['direction'])) {
                $values['direction'] -= 180.0;
            }
        }
        foreach (['direction', 'azimuth'] as $kind) {
            if (isset($values[$kind])) {
                $values[$kind] = self::turn($values[$kind]);
            }
        }

        return [$values, $face];
    }

    private static function turn(float $degrees): float
    {
        $turned = fmod($degrees, 360.0);

        return $turned < 0.0 ? $turned + 360.0 : $turned;
    }

    private static function time(string $text): ?\DateTimeImmutable
    {
        if (1 !== preg_match('/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d/', $text)) {
            return null;
        }
        $at = date_create_immutable($text, new \DateTimeZone('UTC'));

        return false === $at ? null : $at->setTimezone(new \DateTimeZone('UTC'));
    }

    private function bad(\DOMElement $at, string $why): null
    {
        $this->findings[] = new Finding(Finding::ERROR, $at->getLineNo(), $why);
        ++$this->leftOut;

        return null;
    }
}
