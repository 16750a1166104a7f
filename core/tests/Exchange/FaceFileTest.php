<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\Faces\FaceFile;
use Mensura\Exchange\Points\PointFile;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What is odd about a file of faces is said, with its line; nothing of it becomes zero in silence. */
final class FaceFileTest extends TestCase
{
    private string $path;

    protected function setUp(): void
    {
        $this->path = (string) tempnam(sys_get_temp_dir(), 'faces');
    }

    protected function tearDown(): void
    {
        unlink($this->path);
    }

    /** $INSUNITS 4 is the millimetre, 6 the metre (DXF reference, header variables). */
    public function testTheUnitOfAHeaderAndSolidsLeftOutAreSaid(): void
    {
        $solid = "0\n3DSOLID\n8\n0\n";
        self::assertSame([
            '1 solids are left out: the file does not say their faces in numbers',
            'its header says a drawing unit of 0.001 m; its coordinates are taken as metres',
        ], $this->read(self::dxf(4, '2.5', $solid))?->warnings);
        self::assertSame([], $this->read(self::dxf(6, '2.5'))?->warnings);
        self::assertSame([2.5], \array_slice($this->read(self::dxf(0, ' 2.5 '))->x ?? [], 0, 1));
    }

    /** A foot is 0.3048 m, the US survey foot 1200/3937 m (both by definition). */
    public function testAStatedUnitOfLandXmlCounts(): void
    {
        foreach (['foot' => 0.3048, 'USSurveyFoot' => 1200.0 / 3937.0, 'meter' => 1.0] as $unit => $metre) {
            $file = $this->read(self::landXml($unit, '100'));
            self::assertEqualsWithDelta([300.0 * $metre, 100.0 * $metre, 7.0 * $metre], [
                $file->x[1] ?? 0.0, $file->y[2] ?? 0.0, $file->z[0] ?? 0.0,
            ], 1e-12, $unit);
        }
    }

    /** @return iterable<string, array{string, string}> */
    public static function unusable(): iterable
    {
        yield 'a word for a coordinate' => [self::dxf(6, 'east'), 'line 16: "east" is not a coordinate'];
        yield 'a coordinate without end' => [self::dxf(6, '1e999'), 'line 16: "1e999" is not a coordinate'];
        yield 'solids alone' => ["0\nSECTION\n2\nENTITIES\n0\n3DSOLID\n8\n0\n0\nENDSEC\n0\nEOF\n", 'holds 1 solids'];
        yield 'lines alone' => ["0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n0\nENDSEC\n0\nEOF\n", 'holds no faces'];
        yield 'an unknown unit' => [self::landXml('cubit', '100'), 'linearUnit "cubit" is not known'];
        yield 'an infinite northing' => [self::landXml('meter', '1e999'), 'is not "northing easting elevation"'];
    }

    #[DataProvider('unusable')]
    public function testWhatCannotBeUsedIsNamed(string $contents, string $why): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage($why);
        $this->read($contents);
    }

    public function testACloudWithoutScaleIsRefused(): void
    {
        $las = 'LASF'.str_repeat("\0", 20).\chr(1).\chr(2).str_repeat("\0", 68).pack('vVV', 227, 227, 0).\chr(0).pack('v', 20).pack('V', 1)
            .str_repeat("\0", 20).pack('e6', 0.001, 0.0, 0.001, 0.0, 0.0, 0.0).str_repeat("\0", 48).str_repeat("\0", 20);
        file_put_contents($this->path, $las);
        $this->expectExceptionMessage('no usable scale');
        PointFile::read($this->path, 'cloud.las');
    }

    private function read(string $contents): ?FaceFile
    {
        file_put_contents($this->path, $contents);

        return FaceFile::read($this->path, 'design');
    }

    private static function dxf(int $unit, string $x, string $more = ''): string
    {
        return "0\nSECTION\n2\nHEADER\n9\n\$INSUNITS\n70\n$unit\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n"
            ."0\n3DFACE\n8\nTOP\n10\n$x\n20\n0\n30\n0\n11\n9\n21\n0\n31\n0\n12\n9\n22\n9\n32\n0\n{$more}0\nENDSEC\n0\nEOF\n";
    }

    private static function landXml(string $unit, string $northing): string
    {
        return "<LandXML><Units><Imperial linearUnit=\"$unit\"/></Units><Surfaces><Surface><Definition><Pnts><P id=\"1\">0 0 7</P>"
            ."<P id=\"2\">0 300 7</P><P id=\"3\">$northing 0 7</P></Pnts>"
            .'<Faces><F>1 2 3</F></Faces></Definition></Surface></Surfaces></LandXML>';
    }
}
