<?php

declare(strict_types=1);

namespace App\Tests\Clouds;

use App\Tests\ApiTestCase;
use Demo\Street;

/** Clouds and drives that come in another system, or in feet: it is asked where they lie, and they are brought over when they are read. */
final class PlacedCloudsTest extends ApiTestCase
{
    private const PLACES = [[493000.5, 6028000.5, 220.25], [493001.5, 6028000.5, 220.25], [493000.5, 6028010.5, 221.25]];
    /** The same in EPSG:25831, by PROJ through gdaltransform of GDAL 3.6.2. */
    private const NEXT_ZONE = [
        [103723.286885549, 6045196.68862893, 220.25], [103724.285173601, 6045196.60330862, 220.25],
        [103724.140089096, 6045206.67150942, 221.25],
    ];

    /** @param list<array{float, float, float}> $places */
    private static function lines(array $places, float $unit = 1.0): string
    {
        return implode('', array_map(static fn (array $p): string => vsprintf(
            "%.6f %.6f %.6f\n", array_map(static fn (float $v): float => $v / $unit, $p),
        ), $places));
    }

    public function testFeetReadAsMetresAreAskedFor(): void
    {
        self::assertTrue($this->bring('right.xyz', self::lines(self::PLACES))['acceptable']);
        $feet = $this->bring('feet.xyz', self::lines(self::PLACES, 0.3048));
        self::assertFalse($feet['acceptable']);
        $asks = array_column($feet['meaning']['asks'], 'text', 'key');
        self::assertStringContainsString('these look like feet read as metres', $asks['far']);
        $refused = $this->call('POST', "/intake/{$feet['id']}/accept", [], 422);
        self::assertStringContainsString('answer first', json_encode($refused, \JSON_THROW_ON_ERROR));
        // Said to be meant, it is taken as it is.
        $this->call('PUT', "/intake/{$feet['id']}/meaning", ['far' => true], 200);
        $this->post("/intake/{$feet['id']}/accept");
    }

    public function testACloudOfAnotherSystemIsBroughtOver(): void
    {
        $file = $this->bring('next-zone.xyz', self::lines(self::NEXT_ZONE));
        $file = $this->call('PUT', "/intake/{$file['id']}/meaning", ['frame' => 'EPSG:25831'], 200);
        self::assertSame(['heights'], array_column($file['meaning']['asks'], 'key'));
        $file = $this->call('PUT', "/intake/{$file['id']}/meaning", ['frame' => 'EPSG:25831', 'heights' => 'ellipsoidal'], 200);
        self::assertTrue($file['acceptable']);
        self::assertEqualsWithDelta([493000.5, 6028000.5, 493001.5, 6028010.5], $file['extent'], 1.5, 'corners of what is turned');
        $this->post("/intake/{$file['id']}/accept");
        $job = $this->job('/clouds', ['name' => 'brought over', 'files' => [$file['id']]]);
        self::assertSame('done', $job['state'], (string) $job['error']);
        [$cloud] = $this->get('/clouds')['clouds'];
        self::assertEqualsWithDelta([493000.5, 6028000.5, 220.25, 493001.5, 6028010.5, 221.25], $cloud['extent'], 1e-3);
    }

    public function testADriveOfAnotherSystemIsBroughtOver(): void
    {
        $rows = "time,e,n,h,roll,pitch,heading\n";
        foreach (self::NEXT_ZONE as $k => [$e, $n, $h]) {
            $rows .= \sprintf("%d,%.6f,%.6f,%.4f,0,0,0\n", 100 + $k, $e, $n, $h);
        }
        $file = $this->bring('drive.csv', $rows);
        $this->call('PUT', "/intake/{$file['id']}/meaning", ['frame' => 'EPSG:25831', 'heights' => 'ellipsoidal'], 200);
        $this->post("/intake/{$file['id']}/accept");
        $scan = $this->bring('drive.las', Street::las([[101.0, 103723.2869, 6045196.6886, 220.25]]));
        $this->call('PUT', "/intake/{$scan['id']}/meaning", ['frame' => 'EPSG:25831', 'heights' => 'ellipsoidal'], 200);
        $this->post("/intake/{$scan['id']}/accept");
        $job = $this->job('/clouds/passes', ['name' => 'drive', 'trajectory' => $file['id'], 'cloud' => $scan['id']]);
        self::assertSame('done', $job['state'], (string) $job['error']);
        [$e, $n] = $this->get('/clouds/passes/1')['path'];
        foreach (self::PLACES as $k => $place) {
            self::assertEqualsWithDelta([$place[0], $place[1]], [$e[$k], $n[$k]], 1e-3);
        }
    }
}
