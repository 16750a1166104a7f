<?php

declare(strict_types=1);

namespace Mensura\Tests\Earthworks;

use Mensura\Earthworks\Haul;
use Mensura\Earthworks\Material;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Bank, loose and compacted, as earthworks reckon (common practice); figures worked by hand. */
final class HaulTest extends TestCase
{
    /** 1000 m³ of clay, swell 1.25, shrink 0.9: 1250 m³ loose, 900 m³ of fill; 450 m³ of fill take 500 m³ of bank. */
    public function testOverAndAway(): void
    {
        $haul = Haul::of(new Material('clay', true, 1.25, 0.9, 1.8), 1000.0, 450.0, 12.0);
        $figures = [$haul->looseCut, $haul->massCut, $haul->makes, $haul->bankForFill];
        self::assertEqualsWithDelta([1250.0, 1800.0, 900.0, 500.0], $figures, 1e-9);
        self::assertEqualsWithDelta([625.0, 900.0], [$haul->looseOver, $haul->massOver], 1e-9);
        self::assertSame(53, $haul->loads, '625 / 12 = 52.08: the last lorry goes nearly empty.');
    }

    public function testShortAndBroughtIn(): void
    {
        $short = Haul::of(new Material('clay', true, 1.25, 0.9, 1.8), 100.0, 450.0, 12.5);
        self::assertEqualsWithDelta(-500.0, $short->looseOver, 1e-9);
        self::assertSame(40, $short->loads);
        $gravel = Haul::of(new Material('gravel', false, 1.15, 0.95, 2.0), 100.0, 450.0, 12.5);
        self::assertEqualsWithDelta([-1.15 * 450.0 / 0.95, -2.0 * 450.0 / 0.95], [$gravel->looseOver, $gravel->massOver], 1e-9);
    }

    /** @return iterable<string, array{string, float, float, float}> */
    public static function impossible(): iterable
    {
        yield 'soil that gets smaller when it is dug' => ['/swell', 0.9, 0.9, 1.8];
        yield 'soil that vanishes' => ['/shrink', 1.2, 0.0, 1.8];
        yield 'kilograms for tonnes' => ['/density', 1.2, 0.9, 1800.0];
        yield 'not a number' => ['/density', 1.2, 0.9, \NAN];
    }

    #[DataProvider('impossible')]
    public function testImpossibleMaterials(string $field, float $swell, float $shrink, float $density): void
    {
        try {
            new Material('soil', true, $swell, $shrink, $density);
            self::fail('It was taken.');
        } catch (UnusableInput $e) {
            self::assertSame($field, $e->where);
        }
    }
}
