<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

use Mensura\Quantity\Unit;

/**
 * One question that answers every column of a file whose unit is silent: lengths, angles, precisions or variances; and
 * the likely answer.
 */
final readonly class UnitOffer
{
    private const WORDS = ['length' => 'lengths', 'angle' => 'angles', 'precision' => 'standard deviations', 'variance' => 'variances'];

    /** @param list<Field> $fields the silent ones */
    private function __construct(public string $group, public array $fields, public Unit $unit, public string $why)
    {
    }

    /**
     * @param Unit $usual length of the project
     *
     * @return list<self>
     */
    public static function all(DelimitedTable $table, Mapping $mapping, Unit $usual): array
    {
        $groups = [];
        foreach ($mapping->questions() as $field) {
            $groups[$field->group()][] = $field;
        }
        $offers = [];
        foreach ($groups as $group => $fields) {
            [$unit, $why] = match ($group) {
                'angle' => self::angle($fields, $table, $mapping),
                'length' => self::length($fields, $table, $mapping, $usual),
                'precision' => self::precision($fields, $table, $mapping),
                default => [Unit::SquareMetre, 'as covariances usually are'],
            };
            $offers[] = new self($group, $fields, $unit, $why);
        }

        return $offers;
    }

    public function words(): string
    {
        return self::WORDS[$this->group];
    }

    /**
     * @param list<Field> $fields
     *
     * @return array{Unit, string}
     */
    private static function angle(array $fields, DelimitedTable $table, Mapping $mapping): array
    {
        foreach ($fields as $field) {
            $values = ColumnValues::of($table, $mapping->columns[$field->key]);
            if ('zenith' === $field->key && null !== $middle = $values->median()) {
                foreach ([
                    [97.0, 103.0, Unit::Gon], [297.0, 303.0, Unit::Gon], [87.0, 93.0, null], [267.0, 273.0, null],
                ] as [$from, $to, $unit]) {
                    if ($middle > $from && $middle < $to) {
                        $unit ??= $values->looksPacked() ? Unit::PackedDegree : Unit::Degree;

                        return [$unit, \sprintf('the zenith angles gather about %.0f', $middle)];
                    }
                }
            }
        }
        foreach ($fields as $field) {
            $values = ColumnValues::of($table, $mapping->columns[$field->key]);
            if ('direction' === $field->key && (float) $values->greatest() > 360.0) {
                return [Unit::Gon, \sprintf('a direction reads %s, more than a circle of degrees', $values->greatest())];
            }
            if ($values->looksPacked()) {
                return [Unit::PackedDegree, 'every fraction reads as minutes and seconds'];
            }
        }

        return [Unit::Degree, 'nothing speaks against it'];
    }

    /**
     * @param list<Field> $fields
     *
     * @return array{Unit, string}
     */
    private static function length(array $fields, DelimitedTable $table, Mapping $mapping, Unit $usual): array
    {
        $foot = Unit::SurveyFoot === $usual ? Unit::SurveyFoot : Unit::InternationalFoot;
        foreach ($fields as $field) {
            if ('hi' === $field->key || 'ht' === $field->key) {
                $middle = (float) ColumnValues::of($table, $mapping->columns[$field->key])->median();
                // Instruments and poles stand about as tall as who uses them.
                foreach ([[0.9, 2.6, Unit::Metre], [3.6, 8.5, $foot], [900.0, 2600.0, Unit::Millimetre]] as [$from, $to, $unit]) {
                    if ($middle > $from && $middle < $to) {
                        return [$unit, \sprintf('the %s is about %s', $field->label, $middle)];
                    }
                }
            }
        }

        return [$usual, 'the project uses it'];
    }

    /**
     * @param list<Field> $fields
     *
     * @return array{Unit, string}
     */
    private static function precision(array $fields, DelimitedTable $table, Mapping $mapping): array
    {
        $middle = (float) ColumnValues::of($table, $mapping->columns[$fields[0]->key])->median();

        return $middle >= 0.5 ? [Unit::Millimetre, \sprintf('they are about %s', $middle)] : [
            Unit::Metre, \sprintf('they are about %s', $middle),
        ];
    }
}
