<?php

declare(strict_types=1);

namespace Mensura\Tests\Network;

use Mensura\Exchange\GeoJson\SurfaceLines;
use Mensura\Exchange\NetworkJson\NetworkJsonReader;
use Mensura\Fault\UnusableInput;
use Mensura\Network\Adjustment;
use Mensura\Surface\SurfaceBuilder;
use Mensura\Tests\Fixture;
use Mensura\Tests\Reference\Systems;
use PHPUnit\Framework\TestCase;

/** Whatever is damaged in an input, the answer is a result or a named fault, never a defect. */
final class FuzzTest extends TestCase
{
    private const VALUES = [
        null, '', 'x', -1, 0, 1, 1.0e250, -1.0e300, -1.0e9, 1.0e-300, true, false, [], [[]], ['a' => 1], 'P1',
        'plane', 'crs', 'vector', 'aside', 360, 180.0, '1.5',
    ];

    public function testDamagedNetworks(): void
    {
        mt_srand(20310504);
        $outcomes = ['result' => 0, 'fault' => 0];
        $sources = array_map(
            static fn (string $n): array => Fixture::json("network/$n.input.json"),
            ['plane-mixed', 'crs-mixed', 'levelling', 'directions-free'],
        );
        for ($round = 0; $round < 2000; ++$round) {
            $document = $sources[$round % 4];
            for ($k = mt_rand(1, 3); $k > 0; --$k) {
                $this->damage($document);
            }
            try {
                $preanalysis = 0 === $round % 7;
                $network = (new NetworkJsonReader(Systems::frames()))->read(json_encode($document, \JSON_THROW_ON_ERROR), $preanalysis);
                $result = (new Adjustment($network, 0 === $round % 3, $preanalysis))->run(0 === $round % 5 ? 3.29 : null);
                json_encode($result->toArray(), \JSON_THROW_ON_ERROR);
                ++$outcomes['result'];
            } catch (UnusableInput $e) {
                self::assertNotSame('', $e->reason);
                ++$outcomes['fault'];
            }
        }
        self::assertGreaterThan(100, $outcomes['result']);
        self::assertGreaterThan(100, $outcomes['fault']);
    }

    public function testAwkwardSurfaces(): void
    {
        mt_srand(8);
        $outcomes = ['result' => 0, 'fault' => 0];
        for ($round = 0; $round < 1500; ++$round) {
            $x = $y = $z = [];
            $grid = mt_rand(1, 12);
            for ($i = mt_rand(0, 40); $i >= 0; --$i) {
                $x[] = (float) (mt_rand(0, 10 * $grid) / $grid) + (0 === mt_rand(0, 9) ? 5.0e-5 : 0.0);
                $y[] = (float) (mt_rand(0, 10 * $grid) / $grid);
                $z[] = (float) (mt_rand(0, 100) / 10);
            }
            $features = [];
            for ($k = mt_rand(0, 3); $k > 0; --$k) {
                $vertices = [];
                for ($i = mt_rand(1, 6); $i >= 0; --$i) {
                    $vertex = [mt_rand(-2 * $grid, 12 * $grid) / $grid, mt_rand(-2 * $grid, 12 * $grid) / $grid];
                    if (mt_rand(0, 1)) {
                        $vertex[] = 5.0;
                    }
                    $vertices[] = $vertex;
                }
                $features[] = [
                    'type' => 'Feature',
                    'properties' => ['role' => ['breakline', 'boundary', 'void'][mt_rand(0, 2)]],
                    'geometry' => ['type' => 'LineString', 'coordinates' => $vertices],
                ];
            }
            $lines = SurfaceLines::read(json_encode(['type' => 'FeatureCollection', 'features' => $features], \JSON_THROW_ON_ERROR));
            try {
                $tin = (new SurfaceBuilder($x, $y, $z, array_map(strval(...), array_keys($x)), $lines, true))->build();
                $statistics = $tin->statistics();
                self::assertGreaterThan(0.0, $statistics['planArea']);
                self::assertLessThanOrEqual(100.0 + 200.0, $statistics['planArea']);
                foreach ($tin->opposite as $h => $o) {
                    self::assertTrue($o < 0 || $tin->opposite[$o] === $h);
                }
                ++$outcomes['result'];
            } catch (UnusableInput) {
                ++$outcomes['fault'];
            }
        }
        self::assertGreaterThan(100, $outcomes['result']);
        self::assertGreaterThan(50, $outcomes['fault']);
    }

    /** @param array<mixed> $value */
    private function damage(array &$value): void
    {
        $keys = array_keys($value);
        if ([] === $keys) {
            return;
        }
        $key = $keys[mt_rand(0, \count($keys) - 1)];
        if (\is_array($value[$key]) && mt_rand(0, 9) > 0) {
            $this->damage($value[$key]);
        } elseif (0 === mt_rand(0, 2)) {
            unset($value[$key]);
            if (\is_int($key)) {
                $value = array_values($value);
            }
        } elseif (\is_float($value[$key]) && mt_rand(0, 1)) {
            $value[$key] *= [-1.0, 0.3048, 100.0, 1.0e-6, 1.0e6][mt_rand(0, 4)];
        } else {
            $value[$key] = self::VALUES[mt_rand(0, \count(self::VALUES) - 1)];
        }
    }
}
