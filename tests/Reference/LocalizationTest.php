<?php

declare(strict_types=1);

namespace App\Tests\Reference;

use App\Tests\ApiTestCase;

/** From site coordinates to the grid: fitted, judged, kept, shared, applied, undone. */
final class LocalizationTest extends ApiTestCase
{
    private const SITE = [
        ['M1', 1000.0, 2000.0, 50.0], ['M2', 1400.0, 2010.0, 52.0], ['M3', 1390.0, 2350.0, 55.0],
        ['M4', 1010.0, 2340.0, 51.0], ['M5', 1200.0, 2180.0, 53.0],
    ];

    /**
     * Site marks turned by 30° and shifted onto the grid, with a millimetre of noise.
     *
     * @return array{pairs: list<array<string, mixed>>, system: string, heights: string, name: string}
     */
    private static function request(float $wrong = 0.0): array
    {
        $pairs = [];
        foreach (self::SITE as $i => [$name, $e, $n, $h]) {
            [$c, $s] = [cos(deg2rad(30.0)), sin(deg2rad(30.0))];
            // Millimetres of noise, alternating, so that there is something to judge by.
            $noise = 0.002 * (($i % 2) - 0.5);
            $pairs[] = [
                'name' => $name, 'localE' => $e, 'localN' => $n, 'localH' => $h,
                'gridE' => 493000.0 + $c * $e + $s * $n + $noise + (2 === $i ? $wrong : 0.0),
                'gridN' => 6025000.0 - $s * $e + $c * $n - $noise, 'gridH' => $h + 180.0 + $noise,
                'horizontal' => true, 'vertical' => true,
            ];
        }

        return ['pairs' => $pairs, 'system' => 'EPSG:25830', 'heights' => 'ellipsoidal', 'name' => 'Site'];
    }

    private function planeProject(): void
    {
        $this->call('PUT', '/reference', ['reference' => 'plane', 'heights' => 'local'], 200);
        $rows = "point,easting [m],northing [m],height [m],code\n";
        foreach ([...self::SITE, ['FAR', 3000.0, 2000.0, 50.0]] as [$name, $e, $n, $h]) {
            $rows .= "$name,$e,$n,$h,X\n";
        }
        $this->accept('site.csv', $rows);
    }

    public function testPairsAreFittedAndJudgedWhileTheyAreTyped(): void
    {
        $this->planeProject();
        $fit = $this->post('/reference/localizations/fit', self::request());
        self::assertEqualsWithDelta(30.0, $fit['values']['rotation'], 1e-3);
        self::assertEqualsWithDelta(1.0, $fit['values']['scale'], 1e-5);
        self::assertEqualsWithDelta(180.0, $fit['values']['a'], 2e-3);
        self::assertSame([6, 4], [$fit['redundancy'], $fit['redundancyH']]);
        self::assertNull($fit['suspect']);
        self::assertSame(['FAR'], array_column($fit['outside'], 'name'), 'Beyond the hull of the pairs.');
        $wrong = $this->post('/reference/localizations/fit', self::request(0.08));
        self::assertSame(['M3', 'horizontal'], [$wrong['suspect']['name'] ?? null, $wrong['suspect']['part'] ?? null]);
        self::assertEqualsWithDelta(
            0.08,
            hypot((float) $wrong['rows'][2]['withoutE'], (float) $wrong['rows'][2]['withoutN']),
            0.006,
            'What the pair misses the others by.',
        );
        $held = $this->post('/reference/localizations/fit', ['scale' => 1.0, 'rotation' => 0.0] + self::request());
        self::assertSame([1.0, 0.0], [(float) $held['values']['scale'], (float) $held['values']['rotation']]);
        self::assertNull($held['sd']['scale']);
        self::assertGreaterThan(10.0, $held['sigma']);
    }

    public function testWhatCannotBeFittedIsSaid(): void
    {
        $r = self::request();
        $one = ['pairs' => [$r['pairs'][0]]] + $r;
        self::assertStringContainsString('need 2 pairs at least', $this->post('/reference/localizations/fit', $one, 422)['detail']);
        $twice = ['pairs' => [$r['pairs'][0], ['name' => 'again'] + $r['pairs'][0]]] + $r;
        self::assertStringContainsString('the same place', $this->post('/reference/localizations/fit', $twice, 422)['detail']);
        $mirrored = ['pairs' => array_map(static fn (array $p): array => ['localE' => -$p['localE']] + $p, $r['pairs'])] + $r;
        self::assertMatchesRegularExpression(
            '/mirror|exchanged|reflect/', $this->post('/reference/localizations/fit', $mirrored, 422)['detail'],
        );
        $words = ['pairs' => [['localE' => 'ten'] + $r['pairs'][0]]] + $r;
        self::assertSame('/pairs/0/localE', $this->post('/reference/localizations/fit', $words, 422)['errors'][0]['pointer']);
        $this->post('/reference/localizations/fit', ['system' => ''] + $r);
        self::assertStringContainsString(
            'say which system the grid is in',
            $this->post('/reference/localizations', ['system' => ''] + $r, 422)['detail'],
        );
        self::assertStringContainsString(
            'give the localization a name',
            $this->post('/reference/localizations', ['name' => ' '] + $r, 422)['detail'],
        );
    }

    public function testAppliedToTheProjectAndUndone(): void
    {
        $this->planeProject();
        $id = $this->post('/reference/localizations', self::request(), 201)['id'];
        $list = $this->get('/reference')['localizations'];
        self::assertSame([$id, 'Site', 'EPSG:25830', 5], [$list[0]['id'], $list[0]['name'], $list[0]['system'], $list[0]['pairs']]);
        $this->post("/reference/localizations/$id/apply");
        $points = array_column($this->get('/points')['points'], null, 'name');
        $pair = self::request()['pairs'][0];
        self::assertEqualsWithDelta($pair['gridE'], $points['M1']['e'], 0.003);
        self::assertEqualsWithDelta(230.0, $points['M1']['h'], 0.003);
        self::assertSame(['global'], array_values(array_unique(array_column($points, 'known'))));
        self::assertSame('EPSG:25830', $this->get('')['reference']);
        $this->post('/ledger/'.$this->get('')['undo'].'/undo');
        $points = array_column($this->get('/points')['points'], null, 'name');
        self::assertSame([1000.0, 'local'], [(float) $points['M1']['e'], $points['M1']['known']]);
        self::assertSame('plane', $this->get('')['reference']);
    }

    public function testAHeightGivenAloneAndDrawnLinesFollowToo(): void
    {
        $this->planeProject();
        $this->database()->executeStatement("UPDATE point SET role = 'control', held = 'h', given_h = 50.5 WHERE name = 'M1'");
        $line = ['role' => 'edge', 'name' => 'toe', 'points' => [], 'vertices' => [[1000.0, 2000.0], [1100.0, 2000.0]]];
        $this->database()->insert(
            'surface',
            ['project_id' => $this->project, 'name' => 'Toe', 'definition' => json_encode(['lines' => [$line]], \JSON_THROW_ON_ERROR)],
        );
        $id = $this->post('/reference/localizations', self::request(), 201)['id'];
        $this->post("/reference/localizations/$id/apply");
        self::assertEqualsWithDelta(230.5, array_column($this->get('/points')['points'], 'givenH', 'name')['M1'], 0.003);
        $vertex = json_decode(
            (string) $this->database()->fetchOne('SELECT definition FROM surface'), true, 16, \JSON_THROW_ON_ERROR,
        )['lines'][0]['vertices'][1];
        // 100 m along the site's easting runs at 30 degrees off the grid's.
        self::assertEqualsWithDelta(
            [493000.0 + 1100.0 * cos(deg2rad(30.0)) + 2000.0 * 0.5, 6025000.0 - 1100.0 * 0.5 + 2000.0 * cos(deg2rad(30.0))],
            $vertex,
            0.003,
        );
    }

    public function testSharedAsAnOpenFileAndAsWkt(): void
    {
        $this->planeProject();
        $id = $this->post('/reference/localizations', self::request(), 201)['id'];
        $json = $this->download("/reference/localizations/$id.json");
        self::assertSame('mensura-localization/1', json_decode($json, true, 16, \JSON_THROW_ON_ERROR)['format']);
        self::assertStringContainsString('share it as JSON', $this->get("/reference/localizations/$id.wkt", 422)['detail']);
        $plan = $this->post('/reference/localizations', ['vertical' => 'none', 'name' => 'Plan'] + self::request(), 201)['id'];
        self::assertStringStartsWith('DERIVEDPROJCRS', $this->download("/reference/localizations/$plan.wkt"));
        // Into another project, whose local file it brings onto the grid at once.
        $this->project = $this->post(
            '/api/projects',
            ['name' => 'Other', 'reference' => 'EPSG:25830', 'heights' => 'ellipsoidal'],
            201,
        )['id'];
        $other = $this->postText('/reference/localizations/import', $json)['id'];
        $preview = $this->bring('more.csv', "point,easting [m],northing [m],height [m],code\nQ,1000,2000,50,X\n");
        $preview = $this->call('PUT', "/intake/{$preview['id']}/meaning", ['frame' => 'localization:'.$other], 200);
        self::assertTrue($preview['acceptable']);
        $this->post("/intake/{$preview['id']}/accept");
        $q = $this->get('/points')['points'][0];
        self::assertEqualsWithDelta(self::request()['pairs'][0]['gridE'], $q['e'], 0.003);
        self::assertSame('global', $q['known']);
        foreach (['', '{}', '{"format":"mensura-localization/1"}', str_replace('"scale": ', '"scale": -', $json)] as $bad) {
            $this->postText('/reference/localizations/import', $bad, 422);
        }
    }

    public function testALocalizationOfAnotherSystemIsRefused(): void
    {
        $id = $this->post('/reference/localizations', ['system' => 'EPSG:25831'] + self::request(), 201)['id'];
        self::assertStringContainsString(
            "change the project's system first", $this->post("/reference/localizations/$id/apply", [], 422)['detail'],
        );
        self::assertStringContainsString('no such localization', $this->post('/reference/localizations/999/apply', [], 422)['detail']);
    }

    /** A file that cannot be used later is refused when it comes; a bad row that is there all the same does not take the page with it. */
    public function testABadLocalizationFileIsRefusedAndThePageSurvivesOne(): void
    {
        $good = [
            'format' => 'mensura-localization/1', 'name' => 'Site', 'grid' => ['system' => 'EPSG:25830', 'heights' => 'ellipsoidal'],
            'horizontal' => [
                'centre' => ['e' => 0, 'n' => 0], 'shift' => ['e' => 493000.0, 'n' => 6028000.0], 'rotation' => 1.0,
                'scale' => 1.0,
            ],
            'vertical' => ['model' => 'shift', 'shift' => 2.0, 'slope' => ['e' => 0.0, 'n' => 0.0]], 'pairs' => [],
        ];
        $bad = [
            'pairs must be a list' => ['pairs' => 5],
            'pairs[0] needs local and grid e and n' => ['pairs' => [7]],
            'pairs[0].local.e is not a usable number' => ['pairs' => [['local' => ['e' => 'x', 'n' => 1], 'grid' => ['e' => 1, 'n' => 1]]]],
            'horizontal.shift.e' => ['horizontal' => ['shift' => ['e' => 1e300, 'n' => 0.0]] + $good['horizontal']],
            'scale must be a ratio near one' => ['horizontal' => ['scale' => 1e7] + $good['horizontal']],
            'slope must be a small slope' => ['vertical' => ['slope' => ['e' => 40.0, 'n' => 0.0]] + $good['vertical']],
            'name must be a text' => ['name' => ['x']],
            'grid.system must be a text' => ['grid' => ['system' => ['x'], 'heights' => 'ellipsoidal']],
            'are "ellipsoidal", or' => ['grid' => ['system' => 'EPSG:25830', 'heights' => 'wet']],
        ];
        foreach ($bad as $reason => $over) {
            $text = json_encode($over + $good, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);
            self::assertStringContainsString($reason, $this->postText('/reference/localizations/import', $text, 422)['detail']);
        }
        $deep = str_replace('"pairs":[]', '"pairs":'.str_repeat('[', 400).str_repeat(']', 400), json_encode($good, \JSON_THROW_ON_ERROR));
        self::assertStringContainsString('nested too deep', $this->postText('/reference/localizations/import', $deep, 400)['detail']);
        $infinite = str_replace('493000', '1e999', json_encode($good, \JSON_THROW_ON_ERROR));
        self::assertSame('/horizontal/shift/e', $this->postText('/reference/localizations/import', $infinite, 422)['errors'][0]['pointer']);
        self::assertSame([], $this->get('/reference')['localizations']);

        foreach (['{"pairs":5}', 'not JSON', '[[[[[[[[[[[[[[[[[[[[[[]]]]]]]]]]]]]]]]]]]]]]', '{"grid":7,"vertical":[]}'] as $i => $file) {
            $this->database()->insert(
                'localization',
                ['project_id' => $this->project, 'name' => "bad $i", 'file' => $file, 'created_at' => '2031-05-04 09:00:00'],
            );
        }
        self::assertCount(4, $this->get('/reference')['localizations']);
        $id = (int) $this->database()->fetchOne('SELECT MAX(id) FROM localization');
        $this->post("/reference/localizations/$id/apply", [], 422);
        $this->get("/reference/localizations/$id.wkt", 422);
        self::assertIsInt($this->postText('/reference/localizations/import', json_encode($good, \JSON_THROW_ON_ERROR))['id']);
    }
}
