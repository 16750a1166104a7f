<?php

declare(strict_types=1);

namespace Mensura\Exchange\LandXml;

use Mensura\Fault\UnusableInput;
use Mensura\Quantity\Unit;

/** What the numbers of a LandXML file are in, as its Units element says. */
final readonly class SurveyUnits
{
    private const LENGTHS = [
        'meter' => 1.0, 'millimeter' => 0.001, 'centimeter' => 0.01, 'kilometer' => 1000.0, 'foot' => 0.3048,
        'USSurveyFoot' => 1200.0 / 3937.0, 'inch' => 0.0254,
    ];
    private const ANGLES = [
        'radians' => \M_PI, 'grads' => 200.0, 'decimal degrees' => 180.0,
    ];

    /** @param ?float $angle half a turn; null: degrees with minutes and seconds behind the point */
    private function __construct(public float $metre, public ?float $angle, public ?float $direction)
    {
    }

    /** Metres of a linearUnit; null where it is not known. */
    public static function metre(string $linearUnit): ?float
    {
        return self::LENGTHS[$linearUnit] ?? null;
    }

    /** @throws UnusableInput when a unit is not stated or not known */
    public static function of(\DOMXPath $path): self
    {
        $stated = $path->query('/*/*[local-name()="Units"]/*[local-name()="Metric" or local-name()="Imperial"]');
        $units = false === $stated ? null : $stated->item(0);
        if (!$units instanceof \DOMElement) {
            throw new UnusableInput('', 'says nothing of its units: a Units element with Metric or Imperial is missing');
        }
        $length = $units->getAttribute('linearUnit');
        $angle = $units->getAttribute('angularUnit') ?: 'radians';
        $direction = $units->getAttribute('directionUnit') ?: 'radians';

        return new self(
            self::LENGTHS[$length] ?? throw new UnusableInput('line '.$units->getLineNo(), "linearUnit \"$length\" is not known"),
            self::halfTurn($units, 'angularUnit', $angle), self::halfTurn($units, 'directionUnit', $direction),
        );
    }

    /** Degrees of an angle as written; null when it is no number. */
    public static function degrees(string $text, ?float $halfTurn): ?float
    {
        if (null === $halfTurn) {
            return Unit::PackedDegree->read($text);
        }

        return is_numeric($text) && is_finite((float) $text) ? (float) $text * 180.0 / $halfTurn : null;
    }

    private static function halfTurn(\DOMElement $units, string $attribute, string $unit): ?float
    {
        if ('decimal dd.mm.ss' === $unit) {
            return null;
        }

        return self::ANGLES[$unit] ?? throw new UnusableInput('line '.$units->getLineNo(), "$attribute \"$unit\" is not known");
    }
}
