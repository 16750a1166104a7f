<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

use Mensura\Quantity\Unit;

/** What the values of a column say against its being what it is taken for. Limits are common practice of field work. */
final class Plausibility
{
    private const WIDEST_SURVEY = 1e6;
    private const TALLEST = 10.0;
    private const HIGHEST = 1e4;

    /** @return ?string what speaks against it, as it stands behind "but"; null when nothing does */
    public static function against(Field $field, ColumnValues $values, ?Unit $unit): ?string
    {
        if (0 === $values->filled) {
            return $field->required ? 'the column is empty' : null;
        }
        if ('text' === $field->quantity) {
            return self::againstText($field, $values);
        }
        if ('angle' === $field->quantity && ($values->looksSexagesimal() || Unit::DegreeMinuteSecond === $unit)) {
            return null;
        }
        if (!$values->isNumeric()) {
            return \sprintf('"%s" is not a number', mb_substr($values->cells[0], 0, 20));
        }
        $factor = 'length' === $field->quantity ? ($unit ?? Unit::Metre)->factor() : 1.0;
        $least = (float) $values->least() * $factor;
        $greatest = (float) $values->greatest() * $factor;
        $middle = (float) $values->median() * $factor;

        return match ($field->key) {
            'zenith' => self::againstZenith($middle),
            'direction' => $least < -400.0
                || $greatest > 720.0 ? \sprintf('no circle reads %s', $greatest > 720.0 ? $greatest : $least) : null,
            'lat' => max(abs($least), abs($greatest)) > 100.0 ? 'no latitude is beyond 90 degrees' : null,
            'lon' => max(abs($least), abs($greatest)) > 400.0 ? 'no longitude is beyond 360 degrees' : null,
            'distance', 'horizontal' => $least < 0.0 ? 'distances are not negative' : null,
            'hi',
            'ht' => null !== $unit && abs($middle) > self::TALLEST ? \sprintf('%.1f m is too tall for a tripod or pole', $middle) : null,
            'e', 'n' => $values->range() * $factor > self::WIDEST_SURVEY ? 'the values spread over more than 1000 km' : null,
            'h' => abs($middle) > self::HIGHEST ? \sprintf('a height of %.0f cannot be', $middle) : null,
            'sd_e', 'sd_n', 'sd_h' => $least < 0.0 ? 'a standard deviation is not negative' : null,
            default => null,
        };
    }

    private static function againstText(Field $field, ColumnValues $values): ?string
    {
        return match (true) {
            'name' === $field->key && !$values->isDistinct() => 'its names repeat',
            'face' === $field->key && $values->distinct > 2 => \sprintf('it holds %d different words', $values->distinct),
            default => null,
        };
    }

    /** A level sight reads 90 degrees or 100 gon, on the second face 270 or 300. */
    private static function againstZenith(float $middle): ?string
    {
        return match (true) {
            $middle > 45.0 && $middle < 155.0, $middle > 205.0 && $middle < 355.0 => null,
            abs($middle) <= 45.0 => \sprintf('its values gather about %.1f: are these angles above the horizon?', $middle),
            default => \sprintf('its values gather about %.1f; a level sight reads 90 degrees or 100 gon', $middle),
        };
    }
}
