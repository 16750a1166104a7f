<?php

declare(strict_types=1);

namespace Mensura\Tests\Passes;

use Mensura\Passes\Correction;
use Mensura\Passes\CrossSection;
use Mensura\Passes\ExchangedTargets;
use Mensura\Passes\Sighting;
use Mensura\Passes\Trajectory;
use PHPUnit\Framework\TestCase;

/** Marks as a drive sees them: two that are exchanged, and where to look for them. By hand. */
final class MarksTest extends TestCase
{
    private const GIVEN = ['A' => [0.0, 0.0, 10.0], 'B' => [30.0, 4.0, 10.5], 'C' => [60.0, -5.0, 11.0]];

    /** @param array{float, float, float} $seen */
    private static function sighting(string $name, array $seen, bool $isControl = true, int $pass = 0): Sighting
    {
        return new Sighting($name, $isControl, $pass, 100.0, $seen, self::GIVEN[$name]);
    }

    public function testTwoNamesExchangedAreFound(): void
    {
        $off = static fn (string $name): array => array_map(static fn (float $v): float => $v + 0.3, self::GIVEN[$name]);
        $right = [self::sighting('A', $off('A')), self::sighting('B', $off('B')), self::sighting('C', $off('C'))];
        self::assertNull(ExchangedTargets::of($right));
        $wrong = [$right[0], self::sighting('C', $off('B')), self::sighting('B', $off('C'))];
        self::assertSame([1, 2], ExchangedTargets::of($wrong));
        // One that is far off for another reason is nobody's; check points, and other drives, are not asked.
        self::assertNull(ExchangedTargets::of([$right[0], self::sighting('B', [90.0, 0.0, 0.0]), $right[2]]));
        self::assertNull(ExchangedTargets::of([self::sighting('C', $off('B'), false), self::sighting('B', $off('C'), false)]));
        self::assertNull(ExchangedTargets::of([self::sighting('C', $off('B')), self::sighting('B', $off('C'), true, 1)]));
        // A drive that is metres off all along exchanges nothing.
        $far = static fn (string $name): Sighting => self::sighting($name, [self::GIVEN[$name][0] + 3.0, self::GIVEN[$name][1], 0.0]);
        self::assertNull(ExchangedTargets::of([$far('A'), $far('B'), $far('C')]));
    }

    public function testWhatASectionTouchesAndWhereItWasScanned(): void
    {
        // North-east: a section of 24 m by 1 m reaches (12 + 0.5) / sqrt(2) both ways.
        $way = new Trajectory([0.0, 1.0], [100.0, 200.0], [100.0, 200.0], [0.0, 0.0]);
        $half = 12.5 / sqrt(2.0);
        $box = CrossSection::at($way, 50.0 * sqrt(2.0), 12.0, 1.0)->box();
        self::assertEqualsWithDelta([150.0 - $half, 150.0 - $half, 150.0 + $half, 150.0 + $half], $box, 1e-9);
        $by = new Correction([0.0, 1.0], [[0.5, -0.2, 0.0], [0.1, -0.4, 0.0]]);
        self::assertEqualsWithDelta([9.5, 20.0, 11.0, 22.4], $by->back([10.0, 20.0, 11.0, 22.0]), 1e-12);
        self::assertSame([1.0, 2.0, 3.0, 4.0], Correction::none()->back([1.0, 2.0, 3.0, 4.0]));
    }
}
