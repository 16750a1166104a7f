<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Method\Methods;

/** A map projection as a step of a transformation. */
final class ConversionDescription
{
    public static function of(HorizontalSystem $system, bool $inverse): StepDescription
    {
        $conversion = $system->conversion ?? throw new \LogicException('A projected system has a conversion.');
        $parameters = [
            'semi_major_axis_m' => $system->ellipsoid()->a,
            'inverse_flattening' => is_infinite($system->ellipsoid()->inverseFlattening) ? 0.0 : $system->ellipsoid()->inverseFlattening,
        ];
        foreach ($conversion->values as $code => $value) {
            $name = Methods::PARAMETERS[$code] ?? 'EPSG:'.$code;
            $parameters[$name.match (true) {
                \in_array($code, Methods::LENGTHS, true) => ' (m)',
                \in_array($code, Methods::SCALES, true) => '',
                default => ' (degrees)',
            }] = \in_array($code, [...Methods::LENGTHS, ...Methods::SCALES], true) ? $value : round(rad2deg($value), 12);
        }

        return new StepDescription(
            ($inverse ? 'Inverse of ' : '').(Methods::METHODS[$conversion->method][0] ?? $conversion->name),
            $system->code ?? $system->name,
            $parameters,
        );
    }
}
