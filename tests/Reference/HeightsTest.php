<?php

declare(strict_types=1);

namespace App\Tests\Reference;

use App\Tests\ApiTestCase;
use Mensura\Reference\Grid\Gtx;
use Mensura\Reference\Grid\Isg;
use Mensura\Tests\Fixture;

/** Geoids: imported, asked, cut to size, and used. */
final class HeightsTest extends ApiTestCase
{
    private const MARKS = 'point,easting [m],northing [m],ellipsoidal height '
        ."[m],held\nA,493612.345,6028050.5,221.25,enh\nB,493200,6028400,244.26,no\n";
    private const PLAN = [
        'geoid' => 'installed:egm96_15.gtx', 'by' => 'corners', 'south' => 54.0, 'west' => -3.6, 'north' => 54.8,
        'east' => -2.6,
    ];

    public function testNAtAPoint(): void
    {
        // cs2cs EPSG:4979 to EPSG:4326+5773 at 54.4° N 3.1° W: N = 52.9209 m.
        self::assertEqualsWithDelta(52.9209, $this->get('/reference/undulation?lat=54.4&lon=-3.1&geoid=installed:egm96_15.gtx')['n'], 1e-3);
        self::assertStringContainsString(
            '-90 to 90',
            $this->get('/reference/undulation?lat=91&lon=0&geoid=installed:egm96_15.gtx', 422)['detail'],
        );
        $this->get('/reference/undulation?lat=x&lon=0&geoid=installed:egm96_15.gtx', 422);
        self::assertStringContainsString('no such geoid', $this->get('/reference/undulation?lat=50&lon=0', 422)['detail']);
    }

    public function testAnExtractIsPlannedMadeVerifiedAndDownloaded(): void
    {
        $this->accept('c.csv', self::MARKS);
        $plan = $this->post('/reference/extract/plan', self::PLAN + ['label' => 'Tarn']);
        self::assertSame([null, true], [$plan['id'], $plan['sameStep']]);
        self::assertMatchesRegularExpression('/^egm96_15_Tarn_N54\.00W3\.60-N54\.80W2\.60_WGS84\.gtx$/', $plan['name']);
        $made = $this->post('/reference/extract', self::PLAN + ['label' => 'Tarn'], 201);
        self::assertGreaterThanOrEqual(100, $made['checked']);
        self::assertLessThan(0.001, $made['largest'], 'Same nodes, same values.');
        $gtx = $this->download("/reference/grids/{$made['id']}.gtx");
        self::assertSame($plan['gtxSize'], \strlen($gtx));
        $isg = $this->download("/reference/grids/{$made['id']}.isg");
        self::assertLessThan(2000, abs($plan['isgSize'] - \strlen($isg)));
        foreach ([Gtx::read('a', $gtx)->height(54.4, -3.1), Isg::read('b', $isg)->height(54.4, -3.1)] as $n) {
            self::assertEqualsWithDelta(52.9209, $n, 2e-3);
        }
        $listed = array_column($this->get('/reference')['grids'], null, 'id')[$made['id']];
        self::assertSame(['extract', 'geoid', true], [$listed['origin'], $listed['kind'], $listed['coversPoints']]);
        self::assertStringContainsString('random places', $listed['notes'][0]);
        self::assertSame(
            [$made['name']], array_column($this->get('/handover')['geoids'], 'name'),
            'It is in the archive of what is handed over.',
        );
        $this->call('PUT', '/reference', ['reference' => 'EPSG:25830', 'heights' => 'geoid', 'geoid' => 'grid:'.$made['id']], 200);
        self::assertEqualsWithDelta(221.25 - 52.92, $this->get('/points')['points'][0]['h'], 0.02);
    }

    public function testAnExtractOnTheProjectsOwnEllipsoidGivesItsHeights(): void
    {
        $this->call('PUT', '/reference', ['reference' => 'EPSG:28992', 'heights' => 'ellipsoidal'], 200);
        $made = $this->post('/reference/extract', [
            'geoid' => 'installed:egm96_15.gtx', 'by' => 'radius', 'lat' => 52.15, 'lon' => 5.38, 'radiusKm' => 30.0,
            'ellipsoid' => 'local',
        ], 201);
        self::assertSame('Bessel 1841', $made['ellipsoid']);
        self::assertLessThan(0.01, $made['largest']);
        $this->call('PUT', '/reference', ['reference' => 'EPSG:28992', 'heights' => 'geoid', 'geoid' => 'grid:'.$made['id']], 200);
        // The local ellipsoid lies near the ground it was made for: its N there is small (common practice).
        self::assertLessThan(3.0, abs($this->get('/reference/undulation?lat=52.15&lon=5.38')['n']));
    }

    public function testAGeoidFileIsImported(): void
    {
        $this->accept('c.csv', self::MARKS);
        $made = $this->post('/reference/extract', self::PLAN, 201);
        $isg = $this->download("/reference/grids/{$made['id']}.isg");
        $id = $this->upload('/reference/grids', 'tarn.isg', $isg)['id'];
        $grid = array_column($this->get('/reference')['grids'], null, 'id')[$id];
        self::assertSame(['tarn.isg', 'imported', true], [$grid['name'], $grid['origin'], $grid['coversPoints']]);
        self::assertStringContainsString('already', $this->upload('/reference/grids', 'tarn.isg', $isg, 422)['detail']);
        foreach ([
            'empty.gtx' => '', 'text.gtx' => 'hello', 'cut.isg' => substr($isg, 0, -40),
            'png.tif' => "\x89PNG\r\n\x1a\n\0\0\0\rIHDR",
        ] as $name => $bytes) {
            self::assertStringContainsString($name, $this->upload('/reference/grids', $name, $bytes, 422)['detail']);
        }
        $count = \count($this->get('/reference')['grids']);
        $this->post('/ledger/'.$this->get('')['undo'].'/undo');
        self::assertCount($count - 1, $this->get('/reference')['grids']);
    }

    public function testAGeoTiffIsImportedAndAsked(): void
    {
        $id = $this->upload(
            '/reference/grids', 'geoid-plain.tif',
            (string) file_get_contents(Fixture::path('reference/geoid-plain.tif')),
        )['id'];
        $grid = array_column($this->get('/reference')['grids'], null, 'id')[$id];
        self::assertSame(['geoid', 'imported'], [$grid['kind'], $grid['origin']]);
        [$south, $west, $north, $east] = $grid['bounds'];
        $n = $this->get(\sprintf('/reference/undulation?lat=%F&lon=%F&geoid=grid:%d', ($south + $north) / 2.0, ($west + $east) / 2.0, $id));
        self::assertSame('geoid-plain.tif', $n['geoid']);
        self::assertIsFloat($n['n']);
        // It can be taken along as the formats of the field.
        self::assertSame($grid['step'], Gtx::read('x', $this->download("/reference/grids/$id.gtx"))->dLat);
    }

    /** A grid of shifts brought in under the name a transformation asks for makes that transformation usable. */
    public function testAnImportedShiftGridIsFoundByItsName(): void
    {
        $this->accept('c.csv', self::MARKS);
        $best = fn (): array => array_values(array_filter(
            $this->post('/reference/preview', ['reference' => 'EPSG:27700', 'heights' => 'ellipsoidal'])['candidates'],
            static fn (array $c): bool => str_contains($c['name'], 'OSGB36 to ETRS89 (2)'),
        ))[0];
        self::assertFalse($best()['usable']);
        self::assertSame(['OSTN15_NTv2_OSGBtoETRS.gsb'], $best()['missing']);
        // Another grid in the same format, for its form alone: it does not reach the project, and says so.
        $this->upload('/reference/grids', 'OSTN15_NTv2_OSGBtoETRS.gsb', (string) file_get_contents('/usr/share/proj/BETA2007.gsb'));
        self::assertTrue($best()['usable']);
        self::assertStringContainsString(
            'outside',
            $this->post('/reference/preview', ['reference' => 'EPSG:27700', 'heights' => 'ellipsoidal'])['problem'],
        );
        $grid = array_values(array_filter($this->get('/reference')['grids'], static fn (array $g): bool => 'shift' === $g['kind']))[0];
        self::assertStringContainsString('asks for a grid of this name', $grid['notes'][0]);
    }

    public function testTheLimitsOfAnExtract(): void
    {
        foreach ([
            [['radiusKm' => 150.0], '/100/'], [['radiusKm' => 0.0], '/radius/'], [['lat' => 95.0], '/latitude/i'],
            [['lat' => null], '/centre and a radius/'],
        ] as [$change, $reason]) {
            $body = $change + ['geoid' => 'installed:egm96_15.gtx', 'by' => 'radius', 'lat' => 54.4, 'lon' => -3.1, 'radiusKm' => 50.0];
            self::assertMatchesRegularExpression(
                $reason, $this->post('/reference/extract/plan', $body, 422)['detail'], (string) json_encode($change),
            );
        }
        $south = ['geoid' => 'installed:egm96_15.gtx', 'by' => 'corners', 'south' => 54.0, 'west' => -3.6, 'north' => null, 'east' => -2.6];
        self::assertStringContainsString('give two corners', $this->post('/reference/extract/plan', $south, 422)['detail']);
        self::assertStringContainsString('a plane project has no ellipsoid', $this->inAPlane(['ellipsoid' => 'local'] + self::PLAN));
    }

    /** @param array<string, mixed> $body */
    private function inAPlane(array $body): string
    {
        $this->call('PUT', '/reference', ['reference' => 'plane', 'heights' => 'local'], 200);

        return $this->post('/reference/extract/plan', $body, 422)['detail'];
    }

    public function testAGeoidThatDoesNotCoverIsRefused(): void
    {
        $this->accept('c.csv', self::MARKS);
        $made = $this->post('/reference/extract', ['south' => 40.0, 'north' => 41.0, 'west' => -4.0, 'east' => -3.0] + self::PLAN, 201);
        self::assertStringContainsString('does not cover the project', $this->call(
            'PUT',
            '/reference',
            ['reference' => 'EPSG:25830', 'heights' => 'geoid', 'geoid' => 'grid:'.$made['id']],
            422,
        )['detail']);
        self::assertSame('ellipsoidal', $this->get('')['heights']);
        foreach ([
            [['north' => 53.0], 'south'], [['step' => 0.0], 'step'], [['step' => -1.0], 'step'],
            [['east' => 200.0], 'longitudes'], [['step' => 1e-6], 'between 1 second and 5 degrees'],
            [['ellipsoid' => 'local', 'geoid' => 'installed:nothing.gtx'], 'not installed'],
        ] as [$change, $reason]) {
            self::assertStringContainsString(
                $reason,
                $this->post('/reference/extract/plan', $change + self::PLAN, 422)['detail'],
                (string) json_encode($change),
            );
        }
    }
}
