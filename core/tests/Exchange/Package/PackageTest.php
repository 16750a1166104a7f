<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange\Package;

use Mensura\Alignment\Alignment;
use Mensura\Alignment\Element;
use Mensura\Exchange\Look\FileLook;
use Mensura\Exchange\Look\Looked;
use Mensura\Exchange\Package\HeldItem;
use Mensura\Exchange\Package\Package;
use Mensura\Exchange\Package\PackageReader;
use Mensura\Exchange\Package\PackageWriter;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Grid\Gtx;
use PHPUnit\Framework\Attributes\CoversClass;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** Packages are read back, and their files by programs that share nothing with ours: ezdxf, GDAL, libxml. */
#[CoversClass(PackageWriter::class)]
#[CoversClass(PackageReader::class)]
final class PackageTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/package-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        (new Process(['rm', '-rf', $this->folder]))->run();
    }

    public function testHoldsWhatWasPutIn(): void
    {
        $meant = self::package();
        $path = "$this->folder/p.zip";
        $lost = PackageWriter::write($meant, $path);
        self::assertSame(['the layer name "Kante süd" in the drawing, where it is Kante_s_d'], $lost);
        $held = PackageReader::read($path, 'p.zip');
        self::assertSame([], array_filter(array_column($held->items, 'why', 'name')));
        self::assertTrue($held->holds());
        $p = $held->package;
        self::assertSame($meant->points, $p->points);
        self::assertEquals($meant->surfaces, array_map(static fn (array $s): array => ['from' => 'Surface, run 2'] + $s, $p->surfaces));
        self::assertSame($meant->lines, $p->lines);
        self::assertSame($meant->background, $p->background);
        self::assertSame($meant->layers, $p->layers);
        self::assertSame([$meant->system, $meant->geoid, $meant->localization], [$p->system, $p->geoid, $p->localization]);
        self::assertSame('road', $p->alignments[0]->name);
        for ($s = 0.0; $s <= $meant->alignments[0]->length; $s += 5.0) {
            self::assertEqualsWithDelta($meant->alignments[0]->at($s), $p->alignments[0]->at($s), 1e-8);
        }
        self::assertEqualsWithDelta(120.5, $p->alignments[0]->start, 1e-12);
        self::assertSame(
            [
                'surface pit 2', 'surface slab 1', 'alignment road 3', 'lines Kante süd 1', 'lines kerb 2', 'points points 2',
                'background background 1', 'system Test TM 1', 'localization site 1', 'geoid g 1',
            ],
            array_map(static fn (HeldItem $i): string => "$i->kind $i->name $i->count", $held->items),
        );
        // The same parts give the same bytes.
        PackageWriter::write($meant, "$this->folder/again.zip");
        self::assertFileEquals($path, "$this->folder/again.zip");
    }

    public function testItsFilesOpenElsewhere(): void
    {
        PackageWriter::write(self::package(), "$this->folder/p.zip");
        $zip = new \ZipArchive();
        $zip->open("$this->folder/p.zip");
        $zip->extractTo($this->folder);
        $script = 'import sys, ezdxf; d = ezdxf.readfile(sys.argv[1]); a = d.audit(); '
            .'print(len(a.errors), len(a.fixes), d.layers.get("kerb").color, [[tuple(v.dxf.location) for v in p.vertices] '
            .'for p in d.modelspace().query(\'POLYLINE[layer=="kerb"]\')][0])';
        $seen = trim((new Process(['/usr/bin/python3', '-c', $script, "$this->folder/lines.dxf"]))->mustRun()->getOutput());
        self::assertSame('0 0 5 [(100.0, 200.0, 5.125), (110.0, 200.0, 5.25)]', $seen);
        $xml = simplexml_load_string(str_replace('xmlns=', 'ns=', (string) file_get_contents("$this->folder/design.xml")));
        self::assertNotFalse($xml);
        self::assertSame(['pit', 'slab'], [(string) $xml->Surfaces->Surface[0]['name'], (string) $xml->Surfaces->Surface[1]['name']]);
        self::assertSame(['Line', 'Spiral', 'Curve'], array_map(
            static fn (\SimpleXMLElement $e): string => $e->getName(),
            iterator_to_array($xml->Alignments->Alignment->CoordGeom->children(), false),
        ));
        // The circle goes through both its ends: the file says so itself.
        $curve = $xml->Alignments->Alignment->CoordGeom->Curve;
        [$start, $centre, $end] = array_map(
            static fn (\SimpleXMLElement $p): array => array_map(floatval(...), explode(' ', (string) $p)),
            [$curve->Start, $curve->Center, $curve->End],
        );
        self::assertEqualsWithDelta((float) $curve['radius'], hypot($start[0] - $centre[0], $start[1] - $centre[1]), 1e-9);
        self::assertEqualsWithDelta((float) $curve['radius'], hypot($end[0] - $centre[0], $end[1] - $centre[1]), 1e-9);
        $process = new Process(['ogrinfo', '-ro', '-al', '-so', "$this->folder/background.geojson"]);
        self::assertStringContainsString('ID["EPSG",25830]', $process->mustRun()->getOutput());
        self::assertSame(2, FileLook::of("$this->folder/points.csv", 'points.csv')->counted(Looked::POINT));
        $gdal = (new Process(['gdalinfo', "$this->folder/geoid.gtx"]))->mustRun()->getOutput();
        self::assertStringContainsString('Size is 3, 2', $gdal);
    }

    public function testWhatWasChangedAfterwardsIsNamed(): void
    {
        $path = "$this->folder/p.zip";
        PackageWriter::write(self::package(), $path);
        $zip = new \ZipArchive();
        $zip->open($path);
        $csv = (string) $zip->getFromName('points.csv');
        $zip->addFromString('points.csv', str_replace('100.00000', '100.50000', $csv));
        $zip->deleteName('geoid.gtx');
        $zip->close();
        $held = PackageReader::read($path, 'p.zip');
        self::assertFalse($held->holds());
        $why = array_filter(array_column($held->items, 'why', 'kind'));
        self::assertSame(
            ['points' => 'points.csv is not the file that was written: its hash differs', 'geoid' => 'geoid.gtx is missing'], $why,
        );
    }

    public function testNothingToWriteAndNoPackage(): void
    {
        try {
            PackageWriter::write(new Package('n', 'p', '2030-01-01T00:00:00+00:00'), "$this->folder/n.zip");
            self::fail('An empty package was written.');
        } catch (UnusableInput $e) {
            self::assertStringContainsString('choose points, lines, a surface', $e->reason);
        }
        foreach (['../evil.txt' => 'no name of a file', 'other.txt' => 'manifest.json'] as $member => $words) {
            $zip = new \ZipArchive();
            $zip->open("$this->folder/z.zip", \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
            $zip->addFromString($member, 'x');
            $zip->close();
            try {
                PackageReader::read("$this->folder/z.zip", 'z.zip');
                self::fail("$member was read.");
            } catch (UnusableInput $e) {
                self::assertStringContainsString($words, $e->reason);
            }
        }
        // What unpacks to a thousand times its size is not unpacked.
        $zip->open("$this->folder/b.zip", \ZipArchive::CREATE);
        $zip->addFromString('design.xml', str_repeat("\0", 30_000_000));
        $zip->close();
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage('too large unpacked');
        PackageReader::read("$this->folder/b.zip", 'b.zip');
    }

    private static function package(): Package
    {
        $p = new Package('foundations', 'Project & more', '2030-05-04T16:02:00+00:00');
        $p->points = [
            ['name' => 'B2-07', 'e' => 100.0, 'n' => 200.0, 'h' => 5.125, 'code' => 'pile'],
            ['name' => '"q" <&>', 'e' => 101.25, 'n' => 199.5, 'h' => null, 'code' => ''],
        ];
        [$x, $y] = [[0.1, 10.0, 10.0, 0.0], [0.0, 0.0, 10.0, 10.0]];
        $p->surfaces = [
            [
                'from' => 'Surface, run 2', 'name' => 'pit', 'x' => $x, 'y' => $y, 'z' => [1.0 / 3.0, 2.0, 3.0, 4.0],
                'triangles' => [0, 1, 2, 0, 2, 3],
            ],
            [
                'from' => 'Surface, run 2', 'name' => 'slab', 'x' => [0.0, 5.0, 5.0], 'y' => [0.0, 0.0, 5.0], 'z' => [9.0, 9.0, 9.1],
                'triangles' => [0, 1, 2],
            ],
        ];
        $p->lines = [
            ['layer' => 'Kante süd', 'vertices' => [[0.0, 0.0, 1.5], [5.0, 0.0, 1.5], [0.0, 0.0, 1.5]]],
            ['layer' => 'kerb', 'vertices' => [[100.0, 200.0, 5.125], [110.0, 200.0, 5.25]]],
            ['layer' => 'kerb', 'vertices' => [[100.0, 202.0, 5.125], [110.0, 202.0, 5.25]]],
        ];
        $p->layers = ['Kante süd' => 'red', 'kerb' => 'blue'];
        $p->background = [['layer' => 'fence', 'vertices' => [[-5.0, 0.0, 0.0], [-5.0, 50.0, 0.0]]]];
        $line = new Element(0.0, 0.0, 0.3, 40.0);
        $clothoid = new Element(...[...$line->at(40.0), 30.0, 0.0, -1.0 / 60.0]);
        $arc = new Element(...[...$clothoid->at(30.0), 25.0, -1.0 / 60.0, -1.0 / 60.0]);
        $p->alignments = [new Alignment('road', [$line, $clothoid, $arc], 120.5)];
        [$p->system, $p->systemName, $p->systemCode] = ['PROJCRS["Test TM"]', 'Test TM', 'EPSG:25830'];
        [$p->localization, $p->localizationName] = ["{\"name\":\"site\"}\n", 'site'];
        $p->geoid = Gtx::write(new GeoidGrid('g', 51.0, 7.0, 0.25, 0.25, 2, 3, pack('G*', 47.0, 47.1, 47.2, 47.3, 47.4, 47.5)));
        $p->geoidName = 'g';

        return $p;
    }
}
