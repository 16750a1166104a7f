<?php

declare(strict_types=1);

namespace Mensura\Tests\Levelling;

use Mensura\Exchange\LevelJson\LevelJsonReader;
use Mensura\Fault\UnusableInput;
use Mensura\Levelling\LevelBook;
use Mensura\Levelling\LevelledBook;
use Mensura\Levelling\LevelSettings;
use Mensura\Levelling\Pattern;
use Mensura\Levelling\Run;
use Mensura\Levelling\Sight;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Books with known answers, made from true heights by a rule of their own, and facts of the trade. */
final class LevelBookTest extends TestCase
{
    /** @return iterable<string, array{string}> */
    public static function patterns(): iterable
    {
        foreach (Pattern::cases() as $pattern) {
            yield $pattern->value => [$pattern->value];
        }
    }

    #[DataProvider('patterns')]
    public function testAMisclosureIsSharedOutByLength(string $pattern): void
    {
        // True heights 10, 12, 9, 11; 6 mm too many by the end. Setups of 40, 60 and 20 m.
        $rows = self::setups($pattern, ['BM1', 'T1', 'T2', 'BM2'], [10.0, 12.001, 9.004, 11.006], [20.0, 30.0, 10.0]);
        $book = $this->work(['runs' => [['id' => '1', 'pattern' => $pattern, 'rows' => $rows]]]);
        self::assertCount(1, $book->sections);
        $section = $book->sections[0];
        self::assertSame(3, $section->setupCount);
        self::assertEqualsWithDelta(120.0, $section->length, 1e-9);
        self::assertEqualsWithDelta(0.006, $section->misclosure, 1e-12);
        self::assertEqualsWithDelta(0.004 * sqrt(0.12), $section->allowable, 1e-12);
        self::assertFalse($section->passed);
        $heights = self::heights($book);
        self::assertEqualsWithDelta(12.001 - 0.006 / 3, $heights['T1'], 1e-12);
        self::assertEqualsWithDelta(9.004 - 0.006 * 100 / 120, $heights['T2'], 1e-12);
        self::assertSame(
            [['1', 'BM1', 'BM2']],
            array_map(static fn (array $l): array => [$l['run'], $l['from'], $l['to']], $book->network),
        );
        self::assertEqualsWithDelta(1.006, $book->network[0]['value'], 1e-12);
        self::assertSame([], $book->warnings);
        $bySetup = $this->work(
            ['runs' => [['id' => '1', 'pattern' => $pattern, 'rows' => $rows]]],
            ['distribute' => 'setup', 'allowable' => ['k' => 0.004, 'per' => 'setup']],
        );
        self::assertEqualsWithDelta(12.001 - 0.002, self::heights($bySetup)['T1'], 1e-12);
        self::assertTrue($bySetup->sections[0]->passed);
    }

    public function testWithoutLengthsSetupsShareAndTheReasonIsSaid(): void
    {
        $rows = self::setups('BF', ['BM1', 'T1', 'BM2'], [10.0, 12.001, 11.004], [null, 20.0]);
        $book = $this->work(['runs' => [['id' => 'north', 'pattern' => 'BF', 'rows' => $rows]]]);
        self::assertNull($book->sections[0]->length);
        self::assertNull($book->sections[0]->allowable);
        self::assertNull($book->sections[0]->passed);
        self::assertEqualsWithDelta(12.001 - 0.002, self::heights($book)['T1'], 1e-12);
        self::assertCount(2, $book->warnings);
        self::assertStringContainsString(
            'run north, BM1 to BM2: no allowable misclosure, because a sight length is missing',
            $book->warnings[0],
        );
        self::assertStringContainsString('shared out by setups', $book->warnings[1]);
        $line = $book->toArray()['network'][0];
        self::assertSame(2, $line['setups']);
        self::assertArrayNotHasKey('length', $line);
    }

    public function testIntermediateSightsStandOnTheInstrument(): void
    {
        $rows = self::setups('BFFB', ['BM1', 'T1', 'BM2'], [10.0, 12.0, 11.004], [20.0, 20.0]);
        array_splice($rows, 6, 0, [['kind' => 'intermediate', 'point' => 'P', 'reading' => $rows[4]['reading'] + 0.25]]);
        $heights = self::heights($this->work(['runs' => [['id' => '1', 'pattern' => 'BFFB', 'rows' => $rows]]]));
        self::assertEqualsWithDelta($heights['T1'] - 0.25, $heights['P'], 1e-12);
    }

    /** Combined curvature and refraction is about 0.0675 m at a kilometre (handbooks; with a coefficient of 0.14). */
    public function testCurvatureAndStaffChangeReadings(): void
    {
        self::assertEqualsWithDelta(0.0675, (new LevelSettings(refraction: 0.14))->curvatureAt(1000.0), 5e-5);
        $rows = [
            ['kind' => 'back', 'point' => 'BM1', 'reading' => 2.0, 'distance' => 80.0],
            ['kind' => 'fore', 'point' => 'T1', 'reading' => 1.0, 'distance' => 20.0],
        ];
        $book = $this->work(['runs' => [['id' => '1', 'pattern' => 'BF', 'rows' => $rows]]], [
            'curvature' => true, 'staff' => ['scalePpm' => 50, 'expansion' => 1e-6, 'temperature' => 30, 'referenceTemperature' => 20],
        ]);
        self::assertEqualsWithDelta(
            1.0 * (1 + 50e-6 + 10e-6) - 0.87 * (80 ** 2 - 20 ** 2) / (2 * 6371000.0),
            $book->sections[0]->difference,
            1e-12,
        );
        unset($rows[1]['distance']);
        $book = $this->work(['runs' => [['id' => '1', 'pattern' => 'BF', 'rows' => $rows]]], ['curvature' => true]);
        self::assertEqualsWithDelta(1.0, $book->sections[0]->difference, 1e-12);
        self::assertStringContainsString('no correction for curvature', $book->warnings[0]);
    }

    public function testRepeatsBeyondTheLimitAreListedAndUsed(): void
    {
        $rows = self::setups('BBFF', ['BM1', 'T1', 'BM2'], [10.0, 12.0, 11.0], [20.0, 20.0]);
        $rows[5]['reading'] += 0.0012;
        $book = $this->work(['runs' => [['id' => '4', 'pattern' => 'BBFF', 'rows' => $rows]]], ['repeatLimit' => 0.001]);
        self::assertCount(1, $book->warnings);
        self::assertStringContainsString('run 4, setup 2 (T1 to BM2): repeated readings differ by 0.00120 m', $book->warnings[0]);
        self::assertEqualsWithDelta(0.0006, $book->sections[0]->misclosure, 1e-12);
    }

    public function testARunReachedBackwardsAndASecondDetermination(): void
    {
        $book = $this->work(['runs' => [
            ['id' => 'a', 'pattern' => 'BF', 'rows' => self::setups('BF', ['J', 'T', 'K'], [20.0, 20.5, 21.0], [10.0, 10.0])],
            ['id' => 'b', 'pattern' => 'BF', 'rows' => self::setups('BF', ['K', 'BM1'], [21.003, 10.0], [10.0])],
            ['id' => 'c', 'pattern' => 'BF', 'rows' => self::setups('BF', ['BM2', 'J'], [11.0, 20.005], [10.0])],
        ]]);
        $points = array_column(array_map(static fn ($p): array => $p->toArray(), $book->points), null, 'id');
        // b first, backwards from its benchmark; then a backwards from K; then c finds J again.
        self::assertEqualsWithDelta(21.003, $points['K']['h'], 1e-12);
        self::assertEqualsWithDelta(20.003, $points['J']['h'], 1e-12);
        self::assertSame('a', $points['J']['run']);
        self::assertCount(1, $points['J']['again']);
        self::assertSame('c', $points['J']['again'][0]['run']);
        self::assertEqualsWithDelta(0.002, $points['J']['again'][0]['difference'], 1e-12);
    }

    public function testLoopsOfRunsBetweenJunctions(): void
    {
        $run = static fn (string $id, string $from, string $to, float $a, float $b): array => [
            'id' => $id, 'pattern' => 'BF', 'rows' => self::setups('BF', [$from, "$id.1", $to], [$a, 15.0, $b], [25.0, 25.0]),
        ];
        $book = $this->work(['runs' => [
            $run('0', 'BM1', 'J', 10.0, 20.0), $run('1', 'J', 'K', 20.0, 21.0), $run('2', 'L', 'K', 22.0, 21.002),
            $run('3', 'L', 'J', 22.0, 20.0),
            $run('4', 'J', 'K', 20.0, 21.005),
        ]]);
        self::assertCount(2, $book->loops);
        $found = [];
        foreach ($book->loops as $loop) {
            $runs = $loop->runs;
            sort($runs);
            $found[implode('+', $runs)] = abs($loop->misclosure);
            self::assertEqualsWithDelta(0.004 * sqrt(0.1 * \count($loop->runs)), $loop->allowable, 1e-12);
        }
        self::assertEqualsWithDelta(0.005, $found['1+4'], 1e-12);
        self::assertTrue(isset($found['1+2+3']) || isset($found['2+3+4']));
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function unusable(): iterable
    {
        $good = self::setups('BF', ['BM1', 'T1', 'BM2'], [10.0, 12.0, 11.0], [20.0, 20.0]);
        $run = static fn (
            array $rows, string $pattern = 'BF',
        ): array => ['runs' => [['id' => 'north', 'pattern' => $pattern, 'rows' => $rows]]];
        yield 'a row short' => [$run(\array_slice($good, 0, 3)), 'run north ends within setup 2'];
        yield 'two backs' => [
            $run([$good[0], $good[0]]),
            'run north, setup 1: the pattern BF has a fore sight here, not a back sight to "BM1"',
        ];
        yield 'a setup missing' => [
            $run([...\array_slice($good, 0, 2), ['point' => 'T5'] + $good[2], $good[3]]),
            'the back sight is to "T5", but the setup before ended on "T1"',
        ];
        yield 'an intermediate sight between setups' => [
            $run([$good[0], $good[1], ['kind' => 'intermediate', 'point' => 'P', 'reading' => 1], ...\array_slice($good, 2)]),
            'stands between two setups',
        ];
        yield 'nothing known' => [
            $run(self::setups('BF', ['X', 'Y'], [1.0, 2.0], [10.0])), 'run north, X to Y: no known height reaches it',
        ];
        yield 'repeats to two points' => [
            $run([$good[0], $good[0], $good[1], ['point' => 'T2'] + $good[1]], 'BBFF'),
            'the repeated fore sights are to "T1" and to "T2"',
        ];
        yield 'a sight of no length' => [
            $run([['distance' => 0] + $good[0], $good[1]]), 'runs[0].rows[0].distance: is 0; it must be positive',
        ];
        yield 'another kind' => [$run([['kind' => 'side'] + $good[0]]), 'must be "back" or "fore" or "intermediate"'];
        yield 'two runs of one name' => [['runs' => [$run($good)['runs'][0], $run($good)['runs'][0]]], 'run "north" is there twice'];
        yield 'another pattern' => [$run($good, 'FB'), 'must be "BF" or "BFFB" or "BBFF"'];
    }

    /** @param array<string, mixed> $book */
    #[DataProvider('unusable')]
    public function testUnusableBooksAreRefused(array $book, string $reason): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage($reason);
        $this->work($book);
    }

    /**
     * @param list<string> $points
     * @param list<float>  $heights
     * @param list<?float> $lengths of both sights of each setup
     *
     * @return list<array<string, mixed>>
     */
    private static function setups(string $pattern, array $points, array $heights, array $lengths): array
    {
        $rows = [];
        foreach ($lengths as $k => $length) {
            foreach (str_split($pattern) as $letter) {
                $isBack = 'B' === $letter;
                $point = $isBack ? $k : $k + 1;
                $rows[] = [
                    'kind' => $isBack ? Sight::BACK : Sight::FORE, 'point' => $points[$point],
                    'reading' => max($heights) + 1.0 - $heights[$point],
                    'distance' => $length,
                ];
            }
        }

        return $rows;
    }

    /** @return array<string, float> */
    private static function heights(LevelledBook $book): array
    {
        return array_column(array_map(static fn ($p): array => ['id' => $p->id, 'h' => $p->h], $book->points), 'h', 'id');
    }

    /**
     * @param array<string, mixed> $book
     * @param array<string, mixed> $settings
     */
    private function work(array $book, array $settings = []): LevelledBook
    {
        $document = $book + [
            'format' => 'mensura-level/1', 'settings' => $settings + ['allowable' => ['k' => 0.004, 'per' => 'km']],
            'benchmarks' => [['id' => 'BM1', 'h' => 10.0], ['id' => 'BM2', 'h' => 11.0]],
        ];
        [$levelSettings, $benchmarks, $runs] = (new LevelJsonReader())->read((string) json_encode($document));
        self::assertContainsOnlyInstancesOf(Run::class, $runs);

        return LevelBook::work($levelSettings, $benchmarks, $runs);
    }
}
