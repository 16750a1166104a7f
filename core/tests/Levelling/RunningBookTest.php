<?php

declare(strict_types=1);

namespace Mensura\Tests\Levelling;

use Mensura\Levelling\LevelBook;
use Mensura\Levelling\LevelSettings;
use Mensura\Levelling\Pattern;
use Mensura\Levelling\Run;
use Mensura\Levelling\RunningBook;
use Mensura\Levelling\Sight;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What is shown while a run is written is what the book comes to when it is worked out. */
final class RunningBookTest extends TestCase
{
    /** @return iterable<string, array{Pattern, bool}> pattern, and whether one sight length is missing */
    public static function runs(): iterable
    {
        foreach (Pattern::cases() as $pattern) {
            yield $pattern->value => [$pattern, false];
            yield $pattern->value.', a length missing' => [$pattern, true];
        }
    }

    #[DataProvider('runs')]
    public function testRunningHeightsAgreeWithTheBook(Pattern $pattern, bool $isMissing): void
    {
        mt_srand(31);
        $rows = [];
        for ($k = 0; $k < 9; ++$k) {
            foreach ($pattern->kinds() as $i => $kind) {
                $point = Sight::BACK === $kind ? "T$k" : 'T'.($k + 1);
                $rows[] = [
                    'kind' => $kind, 'point' => $point, 'reading' => round(1.0 + mt_rand() / mt_getrandmax(), 4),
                    'distance' => $isMissing && 4 === $k && 1 === $i ? null : round(20.0 + 20.0 * mt_rand() / mt_getrandmax(), 1),
                ];
                if (0 === $i && 0 === $k % 3) {
                    $rows[] = ['kind' => Sight::INTERMEDIATE, 'point' => "P$k", 'reading' => 1.5, 'distance' => 11.0];
                }
            }
        }
        $settings = new LevelSettings(curvature: true, scalePpm: 30.0);
        $running = RunningBook::of($pattern, $rows, ['pT0' => 50.0], $settings);
        $sights = array_map(static fn (array $r): Sight => new Sight($r['kind'], $r['point'], $r['reading'], $r['distance']), $rows);
        $book = LevelBook::work($settings, [['T0', 50.0]], [new Run('1', $pattern, $sights)]);
        $heights = [];
        foreach ($book->points as $point) {
            $heights[$point->id] = $point->h;
        }
        $last = [];
        foreach ($running as $i => $row) {
            self::assertNull($row->fault);
            if (Sight::FORE === $rows[$i]['kind']) {
                $last[$rows[$i]['point']] = $row->h;
            } elseif (Sight::INTERMEDIATE === $rows[$i]['kind'] && Pattern::BackFore === $pattern) {
                self::assertEqualsWithDelta($heights[$rows[$i]['point']], $row->h, 1e-12, $rows[$i]['point']);
            }
        }
        // The second back sight of BFFB changes the horizon after the fore sights are written; the next set-up stands on the whole.
        foreach ($running as $i => $row) {
            if (null !== $row->horizon && $i > 0) {
                self::assertEqualsWithDelta($heights[$rows[$i]['point']], $row->h, 1e-12, $rows[$i]['point']);
            }
        }
        if (Pattern::BackForeForeBack !== $pattern) {
            foreach ($last as $point => $h) {
                self::assertEqualsWithDelta($heights[$point], $h, 1e-12, $point);
            }
        }
        self::assertSame(9, $running[\count($running) - 1]->setup);
    }

    public function testWhatIsWrittenWrongIsSaidRowByRow(): void
    {
        $row = static fn (string $kind, string $point, ?float $reading): array => [
            'kind' => $kind, 'point' => $point, 'reading' => $reading, 'distance' => null,
        ];
        $faults = static fn (array ...$rows): array => array_column(array_map(
            static fn ($r): array => $r->toArray(), RunningBook::of(
                Pattern::BackFore, array_values($rows), ['pA' => 10.0], new LevelSettings(),
            ),
        ), 'fault');
        self::assertSame(['no reading', null], $faults($row('back', 'A', null), $row('fore', 'B', 1.0)));
        self::assertSame(['no point'], $faults($row('back', ' ', 1.0)));
        self::assertSame([
            null, null, 'an intermediate sight belongs between the first and last sight of a setup',
        ], $faults($row('back', 'A', 1.0), $row('fore', 'B', 1.0), $row('intermediate', 'P', 1.0)));
        self::assertSame([
            'a back sight is due here; insert the one that is missing, or delete this', 'repeats the fore sight to A',
        ], $faults($row('fore', 'A', 1.0), $row('fore', 'B', 1.0)));
        $apart = $faults($row('back', 'A', 1.0), $row('fore', 'B', 1.0), $row('back', 'C', 1.0));
        self::assertSame('the setup before ended on B; is a setup missing?', $apart[2]);
    }

    public function testAClosureAndAnUnbalance(): void
    {
        $rows = [
            ['kind' => 'back', 'point' => 'A', 'reading' => 2.0, 'distance' => 31.0],
            ['kind' => 'fore', 'point' => 'B', 'reading' => 1.0, 'distance' => 29.0],
        ];
        $running = RunningBook::of(Pattern::BackFore, $rows, ['pA' => 10.0, 'pB' => 11.004], new LevelSettings());
        self::assertEqualsWithDelta(12.0, $running[0]->horizon, 1e-12);
        self::assertEqualsWithDelta(-0.004, $running[1]->misclosure, 1e-12);
        self::assertEqualsWithDelta(2.0, $running[1]->unbalance, 1e-12);
    }
}
