<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\GeoJson\SurfaceLines;
use Mensura\Exchange\LandXml\LandXmlSurface;
use Mensura\Exchange\PointsCsv\PointsCsvReader;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\SurfaceLine;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What is wrong with points, lines and surfaces in files is named with its place. */
final class SurfaceFilesTest extends TestCase
{
    /** @return iterable<string, array{string, string}> */
    public static function badLines(): iterable
    {
        $feature = static fn (
            string $properties, string $geometry,
        ): string => '{"type":"FeatureCollection","features":[{"type":"Feature","properties":'.$properties.',"geometry":'.$geometry.'}]}';
        yield 'cut off' => ['{"type":"FeatureColl', '/not JSON/'];
        yield 'no features' => ['{"type":"Feature"}', '/features: is missing/'];
        yield 'role' => [
            $feature('{"role":"wall"}', 'null'),
            '/features\[0\]\.properties\.role: must be "breakline", "boundary" or "void"/',
        ];
        yield 'no properties' => [$feature('null', 'null'), '/features\[0\]\.properties\.role/'];
        yield 'geometry' => [
            $feature('{"role":"breakline"}', '{"type":"Point","coordinates":[1,2]}'),
            '/features\[0\]\.geometry\.type: must be LineString/',
        ];
        yield 'position' => [
            $feature('{"role":"breakline"}', '{"type":"LineString","coordinates":[[1,2],[3,"4"]]}'),
            '/features\[0\]\.geometry\.coordinates\[1\]: must be \[easting, northing\]/',
        ];
        yield 'absurd' => [$feature('{"role":"breakline"}', '{"type":"LineString","coordinates":[[1,2],[1e30,4]]}'), '/coordinates\[1\]/'];
    }

    #[DataProvider('badLines')]
    public function testLinesWithFaults(string $json, string $message): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches($message);
        SurfaceLines::read($json);
    }

    public function testRingsLoseTheirRepeatedVertexAndHolesOfBoundariesAreVoids(): void
    {
        $lines = SurfaceLines::read(
            '{"type":"FeatureCollection","features":[{"type":"Feature","properties":{"role":"boundary","name":"works"},'
                .'"geometry":{"type":"Polygon","coordinates":[[[0,0],[9,0],[9,9],[0,9],[0,0]],[[2,2],[4,2],[4,4],[2,2]]]}},'
                .'{"type":"Feature","properties":{"role":"breakline"},'
                .'"geometry":{"type":"LineString","coordinates":[[1,1,5],[1,1,5],[2,2,6]]}}]}',
        );
        self::assertSame([SurfaceLine::BOUNDARY, SurfaceLine::VOID, SurfaceLine::BREAKLINE], array_column($lines, 'role'));
        self::assertSame([4, 3, 2], array_map(static fn (SurfaceLine $l): int => \count($l->vertices), $lines));
        self::assertSame('features[0] (works)', $lines[0]->name);
        self::assertSame([2.0, 2.0, 6.0], $lines[2]->vertices[1]);
    }

    /** @return iterable<string, array{string, string}> */
    public static function badSurfaces(): iterable
    {
        $xml = static fn (
            string $inside,
        ): string => '<?xml version="1.0"?><LandXML xmlns="http://www.landxml.org/schema/LandXML-1.2"><Surfaces><Surface '
            .'name="s"><Definition surfType="TIN">'
            .$inside.'</Definition></Surface></Surfaces></LandXML>';
        yield 'entities' => [
            '<?xml version="1.0"?><!DOCTYPE a [<!ENTITY x SYSTEM "file:///etc/passwd">]><LandXML>&x;</LandXML>',
            '/document type declaration, which is not accepted/',
        ];
        yield 'cut off' => ['<?xml version="1.0"?><LandXML><Surfaces><Surface>', '/line 1/'];
        yield 'no faces' => [$xml('<Pnts><P id="1">0 0 0</P></Pnts>'), '/holds no surface with faces/'];
        yield 'bad point' => [$xml('<Pnts><P id="1">0 north 0</P></Pnts>'), '/point "1" is not "northing easting elevation"/'];
        yield 'unknown point' => [
            $xml('<Pnts><P id="1">0 0 0</P></Pnts><Faces><F>1 2 3</F></Faces>'),
            '/a face names point "2", which is not there/',
        ];
        yield 'four corners' => [
            $xml('<Pnts><P id="1">0 0 0</P></Pnts><Faces><F>1 1 1 1</F></Faces>'),
            '/a face does not have three points/',
        ];
    }

    #[DataProvider('badSurfaces')]
    public function testSurfacesWithFaults(string $xml, string $message): void
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'xml');
        file_put_contents($path, $xml);
        try {
            LandXmlSurface::read($path);
            self::fail('It was read.');
        } catch (UnusableInput $e) {
            self::assertMatchesRegularExpression($message, $e->getMessage());
        } finally {
            unlink($path);
        }
    }

    public function testPointsInAnyOrderOfColumnsAndQuoted(): void
    {
        $stream = fopen('php://temp', 'w+');
        self::assertIsResource($stream);
        fwrite($stream, "h,code,n,e,id\r\n3.5,\"a, b\",2,1,P1\r\n\r\n4.5,x,2,2,P2\r\n");
        rewind($stream);
        self::assertSame(
            ['names' => ['P1', 'P2'], 'x' => [1.0, 2.0], 'y' => [2.0, 2.0], 'z' => [3.5, 4.5]],
            PointsCsvReader::read($stream, 'p.csv'),
        );
    }
}
