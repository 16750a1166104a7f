<?php

declare(strict_types=1);

namespace Mensura\Tests\Reference;

use Mensura\Reference\Localization\Choices;
use Mensura\Reference\Localization\Fitter;
use Mensura\Reference\Localization\Localization;
use Mensura\Reference\Localization\LocalizationJson;
use Mensura\Reference\Localization\Pair;
use Mensura\Reference\Localization\UnusablePairs;
use Mensura\Reference\Text\LocalizationWkt;
use Mensura\Reference\UnsupportedMethod;
use Mensura\Tests\Fixture;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class LocalizationTest extends TestCase
{
    /**
     * Wolf & Ghilani, Adjustment Computations, two-dimensional conformal example (values from memory, cross-checked
     * with numpy.linalg.lstsq): a = -4.51249, b = -0.25371.
     */
    public function testTextbookSimilarity(): void
    {
        $pairs = [];
        foreach ([
            ['A', 121.622, -128.066, 1049422.40, 51089.20], ['B', 141.228, 187.718, 1049413.95, 49659.30],
            ['C', 175.802, 135.728, 1049244.95, 49884.95],
        ] as [$name, $x, $y, $e, $n]) {
            $pairs[] = new Pair($name, $x, $y, null, $e, $n, null);
        }
        $l = Fitter::fit($pairs, new Choices(vertical: Choices::NONE))->localization;
        $a = $l->scale * cos(deg2rad($l->rotationDegrees));
        $b = -$l->scale * sin(deg2rad($l->rotationDegrees));
        self::assertEqualsWithDelta(-4.51249, $a, 2e-5);
        self::assertEqualsWithDelta(-0.25371, $b, 2e-5);
    }

    /** Pairs made from known parameters give them back, whatever is held. */
    #[DataProvider('truths')]
    public function testRecoversKnownParameters(float $rotation, float $scale, Choices $choices): void
    {
        $truth = new Localization(1500.0, 2500.0, 491620.4, 6025561.2, $rotation, $scale, Choices::PLANE, [181.25, 2e-5, -3e-5]);
        $fit = Fitter::fit(self::pairs($truth, [[1000, 2000], [2000, 2100], [1900, 3000], [1100, 2900], [1500, 2500]]), $choices);
        foreach ([[1234.0, 2345.0], [5000.0, -1000.0]] as [$e, $n]) {
            [$x, $y] = $truth->toGrid($e, $n);
            [$p, $q] = $fit->localization->toGrid($e, $n);
            self::assertEqualsWithDelta($x, $p, 1e-6);
            self::assertEqualsWithDelta($y, $q, 1e-6);
            [$back, $again] = $fit->localization->toLocal($p, $q);
            self::assertEqualsWithDelta($e, $back, 1e-8);
            self::assertEqualsWithDelta($n, $again, 1e-8);
            self::assertEqualsWithDelta($truth->heightToGrid($e, $n, 5.0), $fit->localization->heightToGrid($e, $n, 5.0), 1e-7);
        }
        self::assertSame(10 - $choices->fitted(), $fit->redundancy);
        self::assertNull($fit->suspect);
    }

    /** @return iterable<string, array{float, float, Choices}> */
    public static function truths(): iterable
    {
        yield 'all fitted' => [12.3456, 1.000123, new Choices(vertical: Choices::PLANE)];
        yield 'scale held' => [-170.0, 1.0, new Choices(scale: 1.0, vertical: Choices::PLANE)];
        yield 'rotation held' => [0.0, 0.9996, new Choices(rotationDegrees: 0.0, vertical: Choices::PLANE)];
        yield 'shifts only' => [0.0, 1.0, new Choices(rotationDegrees: 0.0, scale: 1.0, vertical: Choices::PLANE)];
        yield 'shifts held' => [33.0, 1.1, new Choices(shiftE: 491620.4, shiftN: 6025561.2, vertical: Choices::PLANE)];
    }

    /** A pair 80 mm off is named, and leaving it out shows by how much. */
    public function testTheBadPairIsSuspected(): void
    {
        $truth = new Localization(1500.0, 2500.0, 491620.4, 6025561.2, 12.0, 1.0001, Choices::SHIFT, [50.0, 0.0, 0.0]);
        $noise = [[2, -3, 1], [-1, 2, -2], [3, 1, 2], [-2, -2, 1], [1, 3, -1], [-3, 0, 2]];
        $pairs = self::pairs($truth, [[1000, 2000], [2000, 2100], [1900, 3000], [1100, 2900], [1500, 2450], [1300, 2650]], $noise);
        $clean = Fitter::fit($pairs, new Choices());
        self::assertNull($clean->suspect);
        self::assertLessThan(0.005, $clean->sigma);
        $bad = $pairs;
        $bad[2] = new Pair('P3', $bad[2]->localE, $bad[2]->localN, $bad[2]->localH, $bad[2]->gridE + 0.08, $bad[2]->gridN, $bad[2]->gridH);
        $fit = Fitter::fit($bad, new Choices());
        self::assertSame(['P3', 'horizontal'], [$fit->suspect['name'] ?? '', $fit->suspect['part'] ?? '']);
        self::assertEqualsWithDelta(-0.08, $fit->rows[2]['without']['e'] ?? 0.0, 0.01);
        self::assertEqualsWithDelta([0.08, 0.0], $fit->suspect['off'] ?? [], 0.01);
        $rest = Fitter::fit(array_values(array_filter($bad, static fn (Pair $p): bool => 'P3' !== $p->name)), new Choices());
        self::assertEqualsWithDelta(
            [$fit->sigma, $rest->sigma], [$fit->suspect['sigma'] ?? 0.0, $fit->suspect['sigmaWithout'] ?? 0.0], 1e-12,
        );
        $high = $pairs;
        $high[4] = new Pair(
            'P5', $high[4]->localE, $high[4]->localN, $high[4]->localH, $high[4]->gridE, $high[4]->gridN,
            (float) $high[4]->gridH + 0.1,
        );
        $fit = Fitter::fit($high, new Choices());
        self::assertSame(['P5', 'height'], [$fit->suspect['name'] ?? '', $fit->suspect['part'] ?? '']);
        self::assertEqualsWithDelta([0.1], $fit->suspect['off'] ?? [], 0.01);
    }

    public function testTheHull(): void
    {
        $truth = new Localization(0.0, 0.0, 100.0, 200.0, 0.0, 1.0, Choices::NONE);
        $fit = Fitter::fit(self::pairs($truth, [[0, 0], [100, 0], [100, 100], [0, 100], [50, 50]]), new Choices(vertical: Choices::NONE));
        self::assertCount(4, $fit->hull);
        self::assertSame(0.0, $fit->outside(50.0, 20.0));
        self::assertEqualsWithDelta(50.0, $fit->outside(150.0, 20.0), 1e-9);
        self::assertEqualsWithDelta(hypot(30.0, 40.0), $fit->outside(-30.0, 140.0), 1e-9);
        $two = Fitter::fit(self::pairs($truth, [[0, 0], [100, 0]]), new Choices(vertical: Choices::NONE));
        self::assertEqualsWithDelta(20.0, $two->outside(50.0, 20.0), 1e-9);
        self::assertNull($two->sigma);
    }

    /** @param list<Pair> $pairs */
    #[DataProvider('unusable')]
    public function testPairsThatCannotBeUsed(array $pairs, Choices $choices, string $pattern): void
    {
        $this->expectException(UnusablePairs::class);
        $this->expectExceptionMessageMatches($pattern);
        Fitter::fit($pairs, $choices);
    }

    /** @return iterable<string, array{list<Pair>, Choices, string}> */
    public static function unusable(): iterable
    {
        $truth = new Localization(0.0, 0.0, 100.0, 200.0, 30.0, 1.0, Choices::SHIFT, [5.0, 0.0, 0.0]);
        $four = self::pairs($truth, [[0, 0], [100, 0], [100, 80], [10, 90]]);
        yield 'too few' => [\array_slice($four, 0, 1), new Choices(), '/1 pairs give 2 equations; 4 parameters are fitted and need 2/'];
        yield 'too few heights' => [\array_slice($four, 0, 2), new Choices(vertical: Choices::PLANE), '/vertical plane needs 3/'];
        yield 'same place twice' => [
            [...$four, new Pair('Q', 0.0, 0.0, 1.0, 500.0, 500.0, 1.0)], new Choices(),
            '/P1 and Q are the same place on the local side/',
        ];
        yield 'same grid place twice' => [
            [...$four, new Pair('Q', 7.0, 7.0, 1.0, $four[1]->gridE, $four[1]->gridN, 1.0)],
            new Choices(),
            '/P2 and Q are the same place on the grid side/',
        ];
        $swapped = array_map(
            static fn (Pair $p): Pair => new Pair($p->name, $p->localN, $p->localE, $p->localH, $p->gridE, $p->gridN, $p->gridH),
            $four,
        );
        yield 'mirrored' => [$swapped, new Choices(), '/fit far better mirrored/'];
        $line = self::pairs($truth, [[0, 0], [50, 0], [100, 0]]);
        yield 'heights on a line' => [$line, new Choices(vertical: Choices::PLANE), '/lie on one line/'];
        yield 'not a number' => [
            [...$four, new Pair('Q', \NAN, 1.0, null, 1.0, 1.0, null)], new Choices(),
            '/pair Q has a coordinate that is not a number/',
        ];
        yield 'no scale' => [$four, new Choices(scale: 0.0), '/held scale of 0/'];
    }

    public function testTheOpenFileReadsBack(): void
    {
        $truth = new Localization(1500.0, 2500.0, 491620.4, 6025561.2, 12.0, 1.0001, Choices::PLANE, [50.0, 1e-5, 2e-5]);
        $pairs = self::pairs($truth, [[1000, 2000], [2000, 2100], [1900, 3000], [1100, 2900]]);
        $choices = new Choices(scale: 1.0001, vertical: Choices::PLANE);
        $fit = Fitter::fit($pairs, $choices);
        $json = json_encode(
            LocalizationJson::toArray('site', 'EPSG:25830', 'ellipsoidal', $fit->localization, $choices, $pairs, $fit),
            \JSON_THROW_ON_ERROR,
        );
        $back = LocalizationJson::read($json);
        self::assertEquals($fit->localization, $back['localization']);
        self::assertEquals($choices->fitted(), $back['choices']->fitted());
        self::assertEquals($pairs, $back['pairs']);
        foreach ([
            '{}', 'x', str_replace('"plane"', '"spline"', $json),
            preg_replace('/"rotation":[^,]+/', '"rotation":"x"', $json),
        ] as $bad) {
            try {
                LocalizationJson::read((string) $bad);
                self::fail('no error');
            } catch (UnusablePairs $e) {
                self::assertNotSame('', $e->getMessage());
            }
        }
    }

    /** The derived system's similarity, computed as EPSG method 9621 states it, gives the local coordinates. */
    public function testTheWktSaysTheSame(): void
    {
        $l = new Localization(1500.0, 2500.0, 491620.4, 6025561.2, 12.0, 1.0001, Choices::NONE);
        $wkt = LocalizationWkt::write('site', Systems::horizontal('EPSG:25830'), $l);
        self::assertStringStartsWith('DERIVEDPROJCRS["site"', $wkt);
        self::assertSame(substr_count($wkt, '['), substr_count($wkt, ']'));
        $v = [];
        foreach ([8621, 8622, 1061, 8614] as $code) {
            self::assertSame(
                1,
                preg_match('/PARAMETER\["[^"]+",(-?[\d.]+),[A-Z]+\["[a-z]+",[\d.]+\],ID\["EPSG",'.$code.'\]\]/', $wkt, $match),
            );
            $v[$code] = (float) $match[1];
        }
        [$e, $n] = $l->toGrid(1234.0, 2345.0);
        $t = deg2rad($v[8614]);
        self::assertEqualsWithDelta(1234.0, $v[8621] + $v[1061] * ($e * cos($t) + $n * sin($t)), 1e-5);
        self::assertEqualsWithDelta(2345.0, $v[8622] + $v[1061] * ($n * cos($t) - $e * sin($t)), 1e-5);
        $this->expectException(UnsupportedMethod::class);
        LocalizationWkt::write(
            'site',
            Systems::horizontal('EPSG:25830'),
            new Localization(0.0, 0.0, 0.0, 0.0, 0.0, 1.0, Choices::SHIFT, [1.0, 0.0, 0.0]),
        );
    }

    /**
     * @param list<array{int, int}>       $places
     * @param list<array{int, int, int}>  $noise  millimetres
     *
     * @return list<Pair>
     */
    private static function pairs(Localization $truth, array $places, array $noise = []): array
    {
        $pairs = [];
        foreach ($places as $i => [$e, $n]) {
            [$x, $y] = $truth->toGrid((float) $e, (float) $n);
            $d = $noise[$i] ?? [0, 0, 0];
            $h = 100.0 + $i;
            $pairs[] = new Pair(
                'P'.($i + 1), (float) $e, (float) $n, $h, $x + $d[0] / 1000.0, $y + $d[1] / 1000.0,
                $truth->heightToGrid((float) $e, (float) $n, $h) + $d[2] / 1000.0,
            );
        }

        return $pairs;
    }

    /** @return iterable<string, array{array<string, mixed>}> */
    public static function numpy(): iterable
    {
        foreach (Fixture::json('reference/localization.json')['cases'] as $case) {
            yield \count($case['pairs']).' pairs' => [$case];
        }
    }

    /**
     * Against numpy.linalg.lstsq, with every pair left out in turn by a fit of its own (fixtures/reference/localization.py).
     *
     * @param array<string, mixed> $case
     */
    #[DataProvider('numpy')]
    public function testAgreesWithNumpy(array $case): void
    {
        $pairs = array_map(static fn (array $p): Pair => new Pair(
            $p['name'], $p['local'][0], $p['local'][1], $p['local'][2], $p['grid'][0], $p['grid'][1], $p['grid'][2],
        ), $case['pairs']);
        $fit = Fitter::fit($pairs, new Choices(vertical: Choices::PLANE));
        $l = $fit->localization;
        self::assertEqualsWithDelta(0.0, fmod($l->rotationDegrees - $case['rotation'] + 540.0, 360.0) - 180.0, 1e-9);
        self::assertEqualsWithDelta($case['scale'], $l->scale, 1e-11);
        self::assertEqualsWithDelta($case['shift'][0], $l->shiftE, 1e-6);
        self::assertEqualsWithDelta($case['shift'][1], $l->shiftN, 1e-6);
        self::assertEqualsWithDelta($case['sigma'], $fit->sigma, 1e-8);
        self::assertEqualsWithDelta($case['sd']['shift'], $fit->sd['shiftE'], 1e-8);
        self::assertEqualsWithDelta($case['sd']['scale'], $fit->sd['scale'], 1e-10);
        self::assertEqualsWithDelta($case['sd']['rotation'], $fit->sd['rotation'], 1e-8);
        self::assertSame(2 * \count($pairs) - 4, $fit->redundancy);
        foreach ($fit->rows as $i => $row) {
            self::assertEqualsWithDelta($case['residuals'][$i][0], $row['e'], 1e-7, $row['name']);
            self::assertEqualsWithDelta($case['residuals'][$i][1], $row['n'], 1e-7, $row['name']);
            self::assertEqualsWithDelta(hypot(...$case['residuals'][$i]), $row['horizontal'], 1e-7);
            self::assertEqualsWithDelta($case['heightResiduals'][$i], $row['h'], 1e-7);
            if (null !== $row['without'] && isset($case['without'][$i])) {
                self::assertEqualsWithDelta($case['without'][$i][0], $row['without']['e'], 1e-5, 'left out '.$row['name']);
                self::assertEqualsWithDelta($case['without'][$i][1], $row['without']['n'], 1e-5, 'left out '.$row['name']);
            }
        }
        foreach ($case['plane'] as $i => $value) {
            self::assertEqualsWithDelta($value, $l->plane[$i], 1e-8);
        }
    }

    /** What is held costs no redundancy and moves nothing; the rest fits as well as it can. */
    public function testHoldingTakesParametersOutOfTheFit(): void
    {
        $case = Fixture::json('reference/localization.json')['cases'][2];
        $pairs = array_map(
            static fn (array $p): Pair => new Pair($p['name'], $p['local'][0], $p['local'][1], null, $p['grid'][0], $p['grid'][1], null),
            $case['pairs'],
        );
        $free = Fitter::fit($pairs, new Choices(vertical: Choices::NONE));
        $sum = static fn (\Mensura\Reference\Localization\Fit $f): float => array_sum(array_map(
            static fn (array $r): float => (float) $r['e'] ** 2 + (float) $r['n'] ** 2,
            $f->rows,
        ));
        foreach ([
            new Choices(scale: 1.0, vertical: Choices::NONE),
            new Choices(rotationDegrees: $case['rotation'] + 0.001, vertical: Choices::NONE),
            new Choices(shiftE: $case['shift'][0] + 0.01, vertical: Choices::NONE),
            new Choices(shiftE: $case['shift'][0], shiftN: $case['shift'][1], vertical: Choices::NONE),
        ] as $choices) {
            $held = Fitter::fit($pairs, $choices);
            self::assertGreaterThanOrEqual($sum($free) - 1e-12, $sum($held), 'A held parameter never fits better.');
            self::assertSame(2 * \count($pairs) - $choices->fitted(), $held->redundancy);
        }
        $exact = Fitter::fit($pairs, new Choices($case['shift'][0], $case['shift'][1], $case['rotation'], $case['scale'], Choices::NONE));
        self::assertEqualsWithDelta($sum($free), $sum($exact), 1e-9, 'Held at what would be fitted, nothing changes.');
        self::assertSame(
            [null, null, null, null],
            [$exact->sd['shiftE'], $exact->sd['shiftN'], $exact->sd['rotation'], $exact->sd['scale']],
        );
    }
}
