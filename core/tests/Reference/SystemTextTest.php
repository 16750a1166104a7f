<?php

declare(strict_types=1);

namespace Mensura\Tests\Reference;

use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Operation\RouteFinder;
use Mensura\Reference\Text\ProjStringReader;
use Mensura\Reference\Text\ProjStringWriter;
use Mensura\Reference\Text\SystemReader;
use Mensura\Reference\Text\UnreadableSystem;
use Mensura\Reference\Text\WktReader;
use Mensura\Reference\Text\WktWriter;
use Mensura\Tests\Fixture;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** WKT2 (ISO 19162) and PROJ strings, read as projinfo (PROJ 9.1.1) writes them and written so that they read back the same. */
final class SystemTextTest extends TestCase
{
    public function testReadsTheWktProjinfoWrites(): void
    {
        $reader = new WktReader(Systems::registry());
        foreach (self::table('reference/wkt.tsv') as [$code, $wkt]) {
            $read = $reader->read($wkt)->horizontal;
            $known = Systems::horizontal($code);
            self::assertSame($known->code, $read->code);
            self::assertSame($known->datum->code, $read->datum->code, $code);
            self::assertSame($known->kind, $read->kind);
            self::samePlane($known, $read, $code);
        }
    }

    public function testWrittenWktReadsBackTheSame(): void
    {
        $reader = new WktReader(Systems::registry());
        foreach (self::table('reference/wkt.tsv') as [$code]) {
            $known = Systems::horizontal($code);
            $back = $reader->read(WktWriter::write(new CoordinateSystem($known)))->horizontal;
            self::assertSame($known->datum->code, $back->datum->code, $code);
            self::assertSame($known->dimension, $back->dimension, $code);
            self::samePlane($known, $back, $code);
        }
        $compound = Systems::registry()->system('EPSG:25830+EPSG:5773');
        $back = $reader->read(WktWriter::write($compound));
        self::assertSame('EPSG:5773', $back->vertical?->code);
        self::assertSame('EPSG:5171', $back->vertical?->datum);
    }

    public function testReadsTheProjStringsProjinfoWrites(): void
    {
        $reader = new ProjStringReader(Systems::registry());
        foreach (self::table('reference/proj.tsv') as [$code, $text]) {
            self::samePlane(Systems::horizontal($code), $reader->read($text)->horizontal, $code);
        }
    }

    public function testWrittenProjStringsReadBackTheSame(): void
    {
        $reader = new ProjStringReader(Systems::registry());
        foreach ([
            'EPSG:25830', 'EPSG:2227', 'EPSG:27572', 'EPSG:2056', 'EPSG:5514', 'EPSG:2065', 'EPSG:2052', 'EPSG:29873',
            'EPSG:28992', 'EPSG:3031', 'EPSG:5041', 'EPSG:3035', 'EPSG:5070', 'EPSG:3395', 'EPSG:6247', 'EPSG:27200',
            'EPSG:3857', 'EPSG:2253',
        ] as $code) {
            $known = Systems::horizontal($code);
            self::samePlane($known, $reader->read(ProjStringWriter::write($known))->horizontal, $code);
        }
    }

    /** A definition with its own way to WGS 84: PROJ gives 51.998996778 N 1.000910237 W for this place (cs2cs). */
    public function testABoundDefinitionBringsItsTransformation(): void
    {
        $text = '+proj=tmerc +lat_0=49 +lon_0=-2 +k=0.9996012717 +x_0=400000 +y_0=-100000 +ellps=airy '
            .'+towgs84=446.448,-125.157,542.06,0.15,0.247,0.842,-20.489 +units=m';
        $registry = Systems::registry();
        $plain = (new ProjStringReader($registry))->read($text);
        $wkt = (new WktReader($registry))->read(WktWriter::write($plain));
        foreach ([$plain, $wkt] as $system) {
            $route = (new RouteFinder($registry, GridFiles::installed()))->route($system, $registry->system('EPSG:4326'));
            [$lat, $lon] = $system->horizontal->toGeographic(468687.6, 233865.9);
            [$lat, $lon] = $route->apply($lat, $lon, 0.0);
            self::assertEqualsWithDelta(51.99899677845, rad2deg($lat), 2e-10);
            self::assertEqualsWithDelta(-1.00091023722, rad2deg($lon), 2e-10);
        }
    }

    #[DataProvider('bad')]
    public function testBadDefinitionsAreNamed(string $text, string $pattern): void
    {
        $this->expectException(UnreadableSystem::class);
        $this->expectExceptionMessageMatches($pattern);
        (new SystemReader(Systems::registry()))->read($text);
    }

    /** @return iterable<string, array{string, string}> */
    public static function bad(): iterable
    {
        yield 'neither' => ['hello', '/neither a code/'];
        yield 'cut short' => [
            'PROJCRS["x",BASEGEOGCRS["y",DATUM["d",ELLIPSOID["e",6378137,298.25',
            '/ends before|is not expected|a number/',
        ];
        yield 'unclosed quote' => ['GEOGCRS["x', '/quotation mark is not closed/'];
        yield 'no datum' => ['GEOGCRS["x",CS[ellipsoidal,2]]', '/must hold DATUM/'];
        yield 'no ellipsoid' => ['GEOGCRS["x",DATUM["d"],CS[ellipsoidal,2]]', '/must hold ELLIPSOID/'];
        yield 'older text' => ['PROJCS["x",GEOGCS["y"]]', '/older well-known text/'];
        yield 'height alone' => ['VERTCRS["x",VDATUM["d"],CS[vertical,1]]', '/does not place anything/'];
        yield 'unknown method' => [
            'PROJCRS["x",BASEGEOGCRS["y",DATUM["d",ELLIPSOID["e",6378137,298.25]]],CONVERSION["c",METHOD["Winkel"]],CS[Cartesian,2]]',
            '/"Winkel" is not among/',
        ];
        yield 'unknown parameter' => [
            'PROJCRS["x",BASEGEOGCRS["y",DATUM["d",ELLIPSOID["e",6378137,298.25]]],CONVERSION["c",METHOD["Transverse '
                .'Mercator"],PARAMETER["Tilt",1]],CS[Cartesian,2]]',
            '/"Tilt" is not known/',
        ];
        yield 'negative axis' => ['GEOGCRS["x",DATUM["d",ELLIPSOID["e",-1,298.25]],CS[ellipsoidal,2]]', '/positive semi-major axis/'];
        yield 'unknown projection' => ['+proj=foo +ellps=GRS80', '/\+proj=foo is not among/'];
        yield 'unknown parameter of a string' => ['+proj=tmerc +lon_9=3', '/\+lon_9 is not known/'];
        yield 'pipeline' => ['+proj=pipeline +step +proj=utm +zone=30', '/pipeline is an operation/'];
        yield 'zone' => ['+proj=utm +zone=77', '/zone between 1 and 60/'];
        yield 'towgs84' => ['+proj=utm +zone=30 +towgs84=1,2', '/3 or 7 numbers/'];
        yield 'angle' => ['+proj=tmerc +lon_0=abc', '/\+lon_0=abc is not an angle/'];
        yield 'unit' => ['+proj=tmerc +units=cubit', '/not a unit/'];
    }

    /** Random damage to a definition is refused or read, never a defect. */
    public function testDamagedTextNeverBreaks(): void
    {
        $reader = new SystemReader(Systems::registry());
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(12));
        $texts = [...array_column(self::table('reference/wkt.tsv'), 1), ...array_column(self::table('reference/proj.tsv'), 1)];
        for ($i = 0; $i < 400; ++$i) {
            $text = $texts[$random->getInt(0, \count($texts) - 1)];
            $at = $random->getInt(0, \strlen($text) - 1);
            $text = match ($random->getInt(0, 2)) {
                0 => substr($text, 0, $at),
                1 => substr_replace($text, \chr($random->getInt(32, 126)), $at, 1),
                default => substr_replace($text, '', $at, $random->getInt(1, 20)),
            };
            try {
                $reader->read($text);
                $this->addToAssertionCount(1);
            } catch (UnreadableSystem $e) {
                self::assertNotSame('', $e->getMessage());
            }
        }
    }

    private static function samePlane(HorizontalSystem $a, HorizontalSystem $b, string $code): void
    {
        self::assertEqualsWithDelta($a->unit, $b->unit, 1e-12, $code);
        if (null === $a->projection || null === $b->projection || null === $a->area) {
            return;
        }
        foreach ([[0.2, 0.3], [0.8, 0.7]] as [$y, $x]) {
            $lat = deg2rad($a->area->south + $y * ($a->area->north - $a->area->south));
            $lon = deg2rad($a->area->west + $x * $a->area->width());
            [$e, $n] = $a->fromGeographic($lat, $lon);
            [$p, $q] = $b->fromGeographic($lat, $lon);
            self::assertEqualsWithDelta($e, $p, 2e-5, $code);
            self::assertEqualsWithDelta($n, $q, 2e-5, $code);
        }
    }

    /** @return list<list<string>> */
    private static function table(string $name): array
    {
        return array_map(
            static fn (string $line): array => explode("\t", $line),
            file(Fixture::path($name), \FILE_IGNORE_NEW_LINES | \FILE_SKIP_EMPTY_LINES) ?: [],
        );
    }
}
