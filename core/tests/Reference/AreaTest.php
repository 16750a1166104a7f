<?php

declare(strict_types=1);

namespace Mensura\Tests\Reference;

use Mensura\Reference\Crs\Area;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Areas of use on a round earth: the 180th meridian is where they go wrong. */
final class AreaTest extends TestCase
{
    public function testInsideAndOutside(): void
    {
        $plain = new Area(50.0, -6.0, 60.0, 2.0);
        self::assertTrue($plain->contains(50.0, -6.0), 'The edge belongs to it.');
        self::assertFalse($plain->contains(49.999, -6.0));
        self::assertFalse($plain->contains(55.0, 2.001));
        $pacific = new Area(-20.0, 175.0, -10.0, -175.0);
        self::assertTrue($pacific->contains(-15.0, 180.0));
        self::assertTrue($pacific->contains(-15.0, -180.0));
        self::assertFalse($pacific->contains(-15.0, 0.0));
        self::assertEqualsWithDelta(10.0, $pacific->width(), 1e-12);
    }

    /** @return iterable<string, array{Area, Area, bool}> */
    public static function covers(): iterable
    {
        $pacific = new Area(-20.0, 170.0, -10.0, -170.0);
        yield 'itself' => [$pacific, $pacific, true];
        yield 'a part across the meridian' => [$pacific, new Area(-15.0, 179.0, -14.0, -179.0), true];
        yield 'a part west of it' => [$pacific, new Area(-15.0, 171.0, -14.0, 172.0), true];
        yield 'a part east of it' => [$pacific, new Area(-15.0, -172.0, -14.0, -171.0), true];
        yield 'too far north' => [$pacific, new Area(-15.0, 171.0, -9.0, 172.0), false];
        yield 'too far east' => [$pacific, new Area(-15.0, 179.0, -14.0, -169.0), false];
        yield 'the other side' => [$pacific, new Area(-15.0, -1.0, -14.0, 1.0), false];
        yield 'the world covers all' => [Area::world(), $pacific, true];
        yield 'nothing covers the world' => [$pacific, Area::world(), false];
    }

    #[DataProvider('covers')]
    public function testCovers(Area $outer, Area $inner, bool $does): void
    {
        self::assertSame($does, $outer->covers($inner));
    }

    public function testIntersection(): void
    {
        $a = new Area(0.0, 0.0, 10.0, 10.0);
        self::assertSame([5.0, 5.0, 10.0, 10.0], $a->intersection(new Area(5.0, 5.0, 20.0, 20.0))?->bounds());
        self::assertNull($a->intersection(new Area(11.0, 0.0, 12.0, 1.0)));
        self::assertNull($a->intersection(new Area(0.0, 20.0, 1.0, 30.0)));
        $across = (new Area(-5.0, 170.0, 5.0, -170.0))->intersection(new Area(-10.0, 175.0, 10.0, -160.0));
        self::assertSame([-5.0, 175.0, 5.0, -170.0], $across?->bounds());
        self::assertSame($a->bounds(), $a->intersection(Area::world())?->bounds());
    }

    public function testSizesOrderAreas(): void
    {
        self::assertGreaterThan(
            (new Area(50.0, 0.0, 51.0, 1.0))->size(), (new Area(0.0, 0.0, 1.0, 1.0))->size(),
            'A degree of longitude is shorter in the north.',
        );
        self::assertGreaterThan((new Area(-20.0, 170.0, -10.0, -170.0))->size(), Area::world()->size());
    }

    public function testAroundPoints(): void
    {
        self::assertSame([-3.0, -4.0, 5.0, 7.0], Area::around([1.0, -3.0, 5.0], [7.0, 2.0, -4.0])->bounds());
        $this->expectException(\DomainException::class);
        Area::around([], []);
    }

    /** @return iterable<string, array{float, float, float, float}> */
    public static function nonsense(): iterable
    {
        yield 'upside down' => [10.0, 0.0, 5.0, 1.0];
        yield 'beyond the pole' => [0.0, 0.0, 91.0, 1.0];
        yield 'beyond the meridian' => [0.0, 0.0, 1.0, 200.0];
        yield 'not a number' => [\NAN, 0.0, 1.0, 1.0];
    }

    #[DataProvider('nonsense')]
    public function testNonsenseIsRefused(float $south, float $west, float $north, float $east): void
    {
        $this->expectException(\DomainException::class);
        $this->expectExceptionMessageMatches('/south, west, north, east in degrees/');
        new Area($south, $west, $north, $east);
    }

    public function testShortNames(): void
    {
        self::assertSame(
            'Europe between 6°W and 0°W',
            (new Area(0, 0, 1, 1, 'Europe between 6°W and 0°W: Faroe Islands offshore; Ireland - offshore.'))->shortName(),
        );
        self::assertSame('World', Area::world()->shortName());
        self::assertSame('', (new Area(0, 0, 1, 1))->shortName());
    }
}
