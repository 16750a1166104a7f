<?php

declare(strict_types=1);

namespace Mensura\Tests\Quantity;

use Mensura\Quantity\Angle;
use Mensura\Quantity\Unit;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class AngleTest extends TestCase
{
    /** @return iterable<array{string, ?float}> */
    public static function forms(): iterable
    {
        yield ['12 34 56.7', 12 + 34 / 60 + 56.7 / 3600];
        yield ["12°34'56.7\"", 12 + 34 / 60 + 56.7 / 3600];
        yield ['-0 30 00', -0.5];
        yield ['39 05', 39 + 5 / 60];
        yield ['39.05', 39.05];
        yield ['3 06 00 W', -3.1];
        yield ['54.4N', 54.4];
        yield ['359:59:59.9', 359 + 59 / 60 + 59.9 / 3600];
        yield ['12 60 00', null];
        yield ['12 30 60', null];
        yield ['12.5 30', null];
        yield ['north', null];
        yield ['', null];
    }

    #[DataProvider('forms')]
    public function testFormsPeopleType(string $text, ?float $degrees): void
    {
        null === $degrees ? self::assertNull(Angle::parse($text)) : self::assertEqualsWithDelta($degrees, Angle::parse($text), 1e-13);
    }

    public function testPackedDegrees(): void
    {
        self::assertEqualsWithDelta(12 + 34 / 60 + 56.7 / 3600, Angle::parsePacked('12.34567'), 1e-12);
        self::assertEqualsWithDelta(-90.5, Angle::parsePacked('-90.3'), 1e-12);
        self::assertNull(Angle::parsePacked('12.61'));
    }

    public function testWritingCarries(): void
    {
        self::assertSame('60 00 00.0', Angle::format(59 + 59 / 60 + 59.97 / 3600));
        self::assertSame('-0 30 00.0', Angle::format(-0.5));
        self::assertSame('7 05 09', Angle::format(7 + 5 / 60 + 9.2 / 3600, 0));
    }

    /** By definition: 400 gon to the circle, 0.3048 m to the international foot, 1200/3937 m to the US survey foot. */
    public function testUnitsByDefinition(): void
    {
        self::assertEqualsWithDelta(360.0, Unit::Gon->read('400'), 1e-12);
        self::assertSame(0.3048, Unit::InternationalFoot->read('1'));
        self::assertEqualsWithDelta(1200.0, Unit::SurveyFoot->read('3937'), 1e-12);
        self::assertEqualsWithDelta(1.25, Unit::Metre->read('1,25'), 1e-15);
        self::assertNull(Unit::Metre->read('1.2.3'));
        self::assertNull(Unit::Metre->read('1e999'));
    }
}
