<?php

declare(strict_types=1);

namespace Mensura\Tests\Quantity;

use Mensura\Quantity\Decimal;
use Mensura\Quantity\Unit;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class UnitTest extends TestCase
{
    /** @return iterable<string, array{string, ?Unit}> */
    public static function headings(): iterable
    {
        foreach ([
            'm' => Unit::Metre, 'Metres' => Unit::Metre, ' mm ' => Unit::Millimetre, 'ft' => Unit::InternationalFoot,
            'Feet' => Unit::InternationalFoot, 'US survey feet' => Unit::SurveyFoot, 'ftUS' => Unit::SurveyFoot,
            'deg' => Unit::Degree, 'D M S' => Unit::DegreeMinuteSecond, 'd.mmss' => Unit::PackedDegree,
            'gon' => Unit::Gon, 'grad' => Unit::Gon, 'm^2' => Unit::SquareMetre, 'mm2' => Unit::SquareMillimetre,
            'furlong' => null, '' => null,
        ] as $text => $unit) {
            yield $text => [(string) $text, $unit];
        }
    }

    #[DataProvider('headings')]
    public function testUnitsInHeadings(string $text, ?Unit $unit): void
    {
        self::assertSame($unit, Unit::fromHeader($text));
    }

    /** The international foot is 0.3048 m and the US survey foot 1200/3937 m by definition; 100 gon are 90 degrees. */
    public function testFactorsByDefinition(): void
    {
        self::assertSame(0.3048, Unit::InternationalFoot->factor());
        self::assertEqualsWithDelta(
            2e-6, 1.0 - Unit::InternationalFoot->factor() / Unit::SurveyFoot->factor(), 1e-9,
            'They differ by two parts in a million.',
        );
        self::assertSame(90.0, 100.0 * Unit::Gon->factor());
        self::assertSame(1.0, 3600.0 * Unit::ArcSecond->factor());
        self::assertEqualsWithDelta(Unit::Millimetre->factor() ** 2, Unit::SquareMillimetre->factor(), 1e-20);
    }

    public function testAQuantityOffersItsOwnUnitsOnly(): void
    {
        self::assertContains(Unit::SurveyFoot, Unit::of('length'));
        self::assertNotContains(Unit::Metre, Unit::of('angle'));
        self::assertSame([], Unit::of('text'));
    }

    /** @return iterable<string, array{Unit, string, ?float}> */
    public static function cells(): iterable
    {
        yield 'metres' => [Unit::Metre, ' 12.5 ', 12.5];
        yield 'decimal comma' => [Unit::Metre, '12,5', 12.5];
        yield 'feet' => [Unit::InternationalFoot, '-10', -3.048];
        yield 'exponent' => [Unit::Metre, '1e3', 1000.0];
        yield 'gon' => [Unit::Gon, '399.9999', 359.99991];
        yield 'degrees, minutes, seconds' => [Unit::DegreeMinuteSecond, '359 59 59.9', 359.0 + 59.0 / 60.0 + 59.9 / 3600.0];
        yield 'packed' => [Unit::PackedDegree, '12.3045', 12.0 + 30.0 / 60.0 + 45.0 / 3600.0];
        yield 'a word' => [Unit::Metre, 'ten', null];
        yield 'nothing' => [Unit::Metre, '', null];
        yield 'not a number' => [Unit::Metre, 'NaN', null];
        yield 'infinite' => [Unit::Metre, '1e999', null];
        yield 'thousands' => [Unit::Metre, '1,234,567', null];
        yield 'sixty minutes' => [Unit::DegreeMinuteSecond, '12 60 00', null];
        yield 'seconds over' => [Unit::PackedDegree, '12.3075', null];
    }

    #[DataProvider('cells')]
    public function testCells(Unit $unit, string $cell, ?float $value): void
    {
        null === $value ? self::assertNull($unit->read($cell)) : self::assertEqualsWithDelta($value, $unit->read($cell), 1e-12);
    }

    /** sprintf is the reference; ours only has to be faster. */
    public function testFixedPointTextEqualsSprintf(): void
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(5));
        for ($i = 0; $i < 4000; ++$i) {
            $value = ($random->getInt(0, 2_000_000_000) - 1_000_000_000) / 10 ** $random->getInt(1, 9);
            $digits = $random->getInt(1, 6);
            $ours = Decimal::fixed($value, $digits);
            // At a tie either neighbour is right; everywhere else the texts are the same.
            self::assertEqualsWithDelta($value, (float) $ours, 0.5000001 * 10 ** -$digits, $ours);
            self::assertMatchesRegularExpression('/^-?\d+\.\d{'.$digits.'}$/', $ours);
        }
        foreach ([
            [0.9999999, 6, '1.000000'], [-0.0000001, 6, '0.000000'], [-1.5, 1, '-1.5'],
            [999999.9999999, 6, '1000000.000000'], [1234567890.125, 3, '1234567890.125'], [0.0, 3, '0.000'],
        ] as [$value, $digits, $text]) {
            self::assertSame($text, Decimal::fixed($value, $digits));
        }
        self::assertSame('nan', strtolower(Decimal::fixed(\NAN, 3)));
    }
}
