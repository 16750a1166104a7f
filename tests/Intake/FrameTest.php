<?php

declare(strict_types=1);

namespace App\Tests\Intake;

use App\Tests\ApiTestCase;

/** Files in other systems, other units, other heights and other orders, brought to one project. Values by cs2cs of PROJ 9.1.1. */
final class FrameTest extends ApiTestCase
{
    /** @param array<string, mixed> $meaning */
    private function bringAs(string $csv, array $meaning, int $status = 200): string
    {
        $file = $this->bring('f'.random_int(0, 1 << 30).'.csv', $csv);
        $this->call('PUT', "/intake/{$file['id']}/meaning", $meaning, 200);
        $answer = $this->post("/intake/{$file['id']}/accept", [], $status);

        return 200 === $status ? '' : $answer['detail'];
    }

    /** @return array<string, array<string, mixed>> */
    private function points(): array
    {
        return array_column($this->get('/points')['points'], null, 'name');
    }

    public function testOnePlaceInFourClothesIsOnePlace(): void
    {
        $own = $this->post(
            '/reference/custom',
            ['name' => 'Shifted', 'definition' => '+proj=utm +zone=30 +ellps=GRS80 +towgs84=0,0,0 +units=m'],
            201,
        )['id'];
        $this->bringAs("point,easting [m],northing [m],height [m]\nA,493612.345,6028050.5,221.25\n", ['heights' => 'ellipsoidal']);
        $this->bringAs(
            "point,easting [m],northing [m],height [m]\nB,882909.05712,6044104.547,221.25\n",
            ['frame' => 'EPSG:25829', 'heights' => 'ellipsoidal'],
        );
        $this->bringAs(
            "point,easting [ft],northing [ft],height [ft]\nC,1619463.07414698,19777068.5695538,725.88582677\n",
            ['heights' => 'ellipsoidal'],
        );
        $this->bringAs(
            "point,northing [m],easting [m],orthometric height [m]\nD,6028050.5,493612.345,168.3299\n",
            ['geoid' => 'installed:egm96_15.gtx'],
        );
        $this->bringAs(
            "point,easting [m],northing [m],height [m]\nE,493612.345,6028050.5,221.25\n",
            ['frame' => 'custom:'.$own, 'heights' => 'ellipsoidal'],
        );
        $points = $this->points();
        foreach (['B', 'C', 'D', 'E'] as $name) {
            self::assertEqualsWithDelta($points['A']['e'], $points[$name]['e'], 2e-4, $name);
            self::assertEqualsWithDelta($points['A']['n'], $points[$name]['n'], 2e-4, $name);
            self::assertEqualsWithDelta($points['A']['h'], $points[$name]['h'], 0.02, $name);
        }
    }

    public function testAFileWhoseSystemNeedsAMissingGridIsRefusedWhole(): void
    {
        $detail = $this->bringAs(
            "point,easting [m],northing [m],height [m]\nA,328790,501078,221.25\nB,328890,501078,221.25\n",
            ['frame' => 'EPSG:27700', 'heights' => 'ellipsoidal'],
            422,
        );
        self::assertStringContainsString('OSTN15', $detail);
        self::assertStringContainsString('Import the grid file, or choose another transformation yourself', $detail);
        self::assertSame([], $this->points());
    }

    public function testControlKeepsItsHoldAndPrecisionOnTheWay(): void
    {
        $this->bringAs(
            'point,easting [m],northing [m],height [m],held,sd easting [mm],sd northing [mm],sd height '
                ."[mm]\nA,882909.05712,6044104.547,221.25,enh,,,\nB,882479.011,6044427.586,244.259,no,4,5,7\n",
            ['frame' => 'EPSG:25829', 'heights' => 'ellipsoidal'],
        );
        $points = $this->points();
        self::assertSame(['enh', 'control'], [$points['A']['held'], $points['A']['role']]);
        self::assertEqualsWithDelta(493612.345, $points['A']['givenE'], 2e-4);
        self::assertEqualsWithDelta([0.004, 0.005, 0.007], [$points['B']['sdE'], $points['B']['sdN'], $points['B']['sdH']], 1e-12);
        self::assertEqualsWithDelta(493212.086, $points['B']['givenE'], 2e-3);
    }

    public function testAProjectAboveTheGeoidTakesEitherKindOfHeights(): void
    {
        $this->call('PUT', '/reference', ['reference' => 'EPSG:25830', 'heights' => 'geoid', 'geoid' => 'installed:egm96_15.gtx'], 200);
        $this->bringAs("point,easting [m],northing [m],height [m]\nG,493612.345,6028050.5,168.33\n", ['heights' => 'geoid']);
        $this->bringAs("point,easting [m],northing [m],ellipsoidal height [m]\nH,493612.345,6028050.5,221.25\n", []);
        $points = $this->points();
        self::assertSame(168.33, $points['G']['h'], 'The project\'s own geoid changes nothing.');
        self::assertEqualsWithDelta(168.33, $points['H']['h'], 0.02);
    }

    public function testAGeoidOfAnotherPlaceIsRefused(): void
    {
        $made = $this->post(
            '/reference/extract',
            ['geoid' => 'installed:egm96_15.gtx', 'by' => 'corners', 'south' => 40.0, 'west' => -4.0, 'north' => 41.0, 'east' => -3.0],
            201,
        );
        $detail = $this->bringAs(
            "point,easting [m],northing [m],height [m]\nA,493612.345,6028050.5,168.33\n",
            ['heights' => 'geoid', 'geoid' => 'grid:'.$made['id']],
            422,
        );
        self::assertStringContainsString('A: latitude 54.4', $detail);
        self::assertStringContainsString('outside the grid', $detail);
        self::assertSame([], $this->points());
    }

    public function testAMarkCannotBeLocalAndGlobalAtOnce(): void
    {
        $this->bringAs("point,easting [m],northing [m],height [m]\nA,493612.345,6028050.5,221.25\n", ['heights' => 'ellipsoidal']);
        $detail = $this->bringAs("point,easting [m],northing [m],height [m]\nX,1,2,3\nA,100,200,10\n", ['frame' => 'local'], 422);
        self::assertStringContainsString('line 3: A is in the project already, known globally; rename one of them', $detail);
        self::assertSame(['A'], array_keys($this->points()), 'X did not come in either.');
    }

    public function testALocalizationToAnotherMeaningIsRefused(): void
    {
        $site = ['name' => 'Site', 'system' => 'EPSG:25829', 'heights' => 'ellipsoidal', 'vertical' => 'none'];
        $id = $this->post('/reference/localizations', $site + [
            'pairs' => [
                [
                    'name' => 'a', 'localE' => 0.0, 'localN' => 0.0, 'localH' => null, 'gridE' => 882000.0,
                    'gridN' => 6044000.0, 'gridH' => null, 'horizontal' => true, 'vertical' => true,
                ],
                [
                    'name' => 'b', 'localE' => 100.0, 'localN' => 0.0, 'localH' => null, 'gridE' => 882100.0,
                    'gridN' => 6044000.0, 'gridH' => null, 'horizontal' => true, 'vertical' => true,
                ],
            ]], 201)['id'];
        self::assertStringContainsString(
            'the localization "Site" leads to EPSG:25829, the project is in EPSG:25830',
            $this->bringAs("point,easting [m],northing [m],height [m]\nP,50,50,1\n", ['frame' => 'localization:'.$id], 422),
        );
    }

    public function testAPlaneProjectTakesPlaneNumbersOnly(): void
    {
        $this->call('PUT', '/reference', ['reference' => 'plane', 'heights' => 'local'], 200);
        $file = $this->bring('p.csv', "point,easting [m],northing [m],height [m]\nP,50,50,1\n");
        self::assertSame([true, []], [$file['meaning']['plane'], $file['meaning']['asks']], 'Nothing is asked.');
        self::assertTrue($file['acceptable']);
        self::assertStringContainsString('give the project a system first', $this->bringAs(
            "point,easting [m],northing [m],height [m]\nQ,493612.345,6028050.5,221.25\n",
            ['frame' => 'EPSG:25830', 'heights' => 'ellipsoidal'],
            422,
        ));
    }

    public function testThePreviewShowsWherePointsWouldLie(): void
    {
        $file = $this->bring('z.csv', "point,easting [m],northing [m],ellipsoidal height [m]\nA,882909.05712,6044104.547,221.25\n");
        self::assertEqualsWithDelta(882909.057, $file['points'][0]['e'], 1e-3);
        $moved = $this->call('PUT', "/intake/{$file['id']}/meaning", ['frame' => 'EPSG:25829'], 200);
        self::assertEqualsWithDelta(493612.345, $moved['points'][0]['e'], 1e-3);
        $this->post("/intake/{$file['id']}/accept");
        self::assertSame('This file is accepted.', $this->call('PUT', "/intake/{$file['id']}/meaning", ['frame' => 'local'], 409)['title']);
    }
}
