<?php

declare(strict_types=1);

namespace Mensura\Tests\Cloud;

use Mensura\Cloud\Ground;
use Mensura\Cloud\HeightGrid;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Scenes whose ground is known. Total error as Sithole and Vosselman (2004, ISPRS Journal 59) count it: both kinds, of all points. */
final class GroundTest extends TestCase
{
    /** @return iterable<string, array{array<int, mixed>, float}> */
    public static function scenes(): iterable
    {
        yield 'rolling, with houses and trees' => [[1, 120.0, 4.0, 3.0, 40.0, 0.02, 6, 60, 60], 0.01];
        yield 'rolling and thin' => [[3, 200.0, 1.2, 5.0, 50.0, 0.0, 10, 150, 60], 0.02];
        yield 'flat and dense, two large halls' => [[4, 60.0, 30.0, 0.4, 30.0, 0.0, 2, 20, 30, 0.015], 0.01];
        yield 'forest' => [[8, 100.0, 6.0, 6.0, 40.0, 0.15, 0, 300, 150], 0.01];
        yield 'steep' => [[5, 120.0, 4.0, 15.0, 30.0, 0.35, 4, 80, 50], 0.04];
        yield 'steeper than anybody builds' => [[6, 120.0, 5.0, 22.0, 35.0, 0.6, 3, 80, 40, 0.05], 0.08];
    }

    /** @param array<int, mixed> $scene */
    #[DataProvider('scenes')]
    public function testGroundIsFound(array $scene, float $most): void
    {
        $scene = new CloudScene(...$scene);
        self::assertLessThan($most, $scene->totalError(Ground::of($scene->x, $scene->y, $scene->z)));
    }

    public function testAPlaneIsGroundAllOver(): void
    {
        $x = $y = $z = [];
        for ($i = 0; $i < 40; ++$i) {
            for ($j = 0; $j < 40; ++$j) {
                [$x[], $y[], $z[]] = [0.5 * $i, 0.5 * $j, 7.0 + 0.2 * $i - 0.1 * $j];
            }
        }
        self::assertCount(1600, Ground::of($x, $y, $z));
        self::assertCount(1599, Ground::of($x, $y, $z, [800 => true]), 'what is noise already is passed over');
        self::assertSame([], Ground::of([], [], []));
        self::assertSame([0 => true], Ground::of([1.0], [2.0], [3.0]));
    }

    public function testAnOpeningIsTheGreatestOfTheLeast(): void
    {
        $h = [];
        for ($i = 0; $i < 11 * 7; ++$i) {
            $h[] = (float) (($i * 37) % 23);
        }
        foreach ([1, 2, 3, 8] as $r) {
            $slide = static function (array $of, callable $take) use ($r): array {
                $out = [];
                for ($j = 0; $j < 7; ++$j) {
                    for ($i = 0; $i < 11; ++$i) {
                        $within = [];
                        for ($b = max(0, $j - $r); $b <= min(6, $j + $r); ++$b) {
                            for ($a = max(0, $i - $r); $a <= min(10, $i + $r); ++$a) {
                                $within[] = $of[$b * 11 + $a];
                            }
                        }
                        $out[] = $take($within);
                    }
                }

                return $out;
            };
            self::assertSame($slide($slide($h, min(...)), max(...)), (new HeightGrid(0.0, 0.0, 1.0, 11, 7, $h))->opened($r)->h);
        }
    }

    public function testGapsAreFilledFromAround(): void
    {
        $h = array_fill(0, 64 * 64, 5.0);
        for ($j = 20; $j < 40; ++$j) {
            for ($i = 10; $i < 50; ++$i) {
                $h[$j * 64 + $i] = \NAN;
            }
        }
        foreach ((new HeightGrid(0.0, 0.0, 1.0, 64, 64, $h))->filled()->h as $v) {
            self::assertEqualsWithDelta(5.0, $v, 1e-12);
        }
        self::assertSame([0.0], (new HeightGrid(0.0, 0.0, 1.0, 1, 1, [\NAN]))->filled()->h);
    }
}
