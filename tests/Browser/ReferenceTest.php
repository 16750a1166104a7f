<?php

declare(strict_types=1);

namespace App\Tests\Browser;

/** The reference stage as its user drives it, on the demo project. */
final class ReferenceTest extends OfficeTestCase
{
    public function testASystemIsFoundByWordsByCodeAndByHere(): void
    {
        $o = self::$office;
        $o->go('/p/1/reference');
        $o->see('Coordinates are in ETRS89 / UTM zone 30N');
        $o->type('[data-test=system-search]', 'utm 30');
        $o->await(
            static fn (): ?bool => str_contains($o->find('[data-test=system-hits] .hit')->getText(), 'ETRS89 / UTM zone 30N') ? true : null,
            'the zone of the project first',
        );
        $o->type('[data-test=system-search]', '2600');
        $o->see('deprecated');
        $o->press('EPSG:2600');
        $o->see('names EPSG:3346 as its successor');
        $o->see('lie outside its area of use');
        $o->type('[data-test=system-search]', 'here');
        $o->see('ppm at the centre');
        $o->press('EPSG:27700');
        $o->see('Airy 1830');
        $o->see('OSTN15');
        $o->type('[data-test=system-search]', 'zzzz');
        $o->see('No system is called “zzzz”');
    }

    public function testAChangeShowsBeforeAndAfterThenMovesThePoints(): void
    {
        $o = self::$office;
        $o->go('/p/1/reference');
        $o->type('[data-test=system-search]', '25829');
        $o->press('EPSG:25829');
        $o->click('[data-test=change]');
        $o->see('1553 points follow; 14 known only locally keep their numbers');
        $o->see('outside the area of use');
        // KT01 in zone 29 by cs2cs of PROJ 9.1.1 from E 493120.412, N 6028061.238: E 882417.114, N 6044073.304.
        $o->see('882417.114');
        $o->see('6044073.304');
        $o->click('[data-test=confirm-change]');
        $o->see('Coordinates are in ETRS89 / UTM zone 29N');
        $o->see('stale');
        $o->press('Ledger');
        $o->see('1553 points followed, 14 known only locally stay');
        $o->go('/p/1/reference');
        $o->see('UTM zone 29N');
        $o->find('body')->sendKeys("\u{E009}z\u{E000}");
        $o->see('Coordinates are in ETRS89 / UTM zone 30N');
    }

    public function testAMissingGridIsNamedAndAnotherWayIsChosenByHand(): void
    {
        $o = self::$office;
        $o->go('/p/1/reference');
        $o->type('[data-test=system-search]', '27700');
        $o->press('EPSG:27700');
        $o->click('[data-test=change]');
        $o->find('[data-test=change-problem]');
        $o->see('OSTN15_NTv2_OSGBtoETRS.gsb, which is not installed');
        self::assertFalse($o->find('[data-test=confirm-change]')->isEnabled());
        $o->click('.ways .el-radio:not(.is-disabled)');
        $o->see('points follow');
        self::assertTrue($o->find('[data-test=confirm-change]')->isEnabled());
        $o->press('Back');
    }

    public function testAnOwnSystemIsCheckedWhileItIsTypedAndTheWestIsAskedFor(): void
    {
        $o = self::$office;
        $o->go('/p/1/reference?page=own');
        $o->click('[data-test=own-text]');
        $o->type('[data-test=own-definition]', '+proj=utm +zone=30 +ellps=GRS80');
        $o->type('#own-lat', '54 24');
        $o->see('degrees, minutes: 54° 24′ 00.00″ N');
        $o->type('#own-lon', '3.1');
        $o->see('with W it lies at the project');
        $o->press('Read it so');
        // cs2cs EPSG:4258 to EPSG:25830 at 54°24' N 3°06' W.
        $o->see('E 493508.0476 N 6028031.9486');
        $o->type('#own-lat', '91');
        $o->see('a latitude lies between −90 and 90 degrees');
        $o->type('#own-lat', '54.4');
        $o->type('[data-test=own-name]', 'Zone thirty again');
        $o->click('[data-test=own-keep]');
        $o->see('is kept with the project');
        $o->see('change to it');
        $o->press('open');
        $o->see('Definition as text');
        $o->click('[data-test=own-low]');
        $o->find('[data-test=design]');
        $o->see('ppm, mean');
    }

    public function testAGeoidExtractIsPlannedMadeAndUsedForHeights(): void
    {
        $o = self::$office;
        $o->go('/p/1/reference?page=heights');
        // EGM96 at the project's middle by cs2cs, EPSG:4979 to EPSG:4326+5773: 52.92 m.
        $o->await(
            static fn (): ?bool => str_starts_with($o->find('[data-test=undulation] strong')->getText(), '52.92') ? true : null,
            'N of the geoid',
        );
        $o->click('[data-test=extract-open]');
        $o->see('_WGS84.gtx');
        $o->type('#x-north', '50');
        $o->find('[data-test=extract-problem]');
        $o->type('#x-north', '54 48');
        $o->see('as ISG text');
        $o->type('[data-test=extract-label]', 'tarn');
        $o->see('egm96_15_tarn_');
        $o->click('[data-test=extract-make]');
        $o->see('is made and checked at');
        $o->find('[data-test=grid-downloads]');
        $o->click('[data-test=change-heights-open]');
        $o->see('Eastings and northings stay. Heights move by');
        $o->click('[data-test=confirm-change]');
        $o->see('Heights above the geoid egm96_15_tarn_');
        $o->go('/p/1/network');
        $o->click('[data-test=stale]');
        $o->press('Recompute');
        $o->see('Everything is fresh again', 60);
        $o->go('/p/1/reference?page=heights');
        $o->click('[data-test=change-heights-open]');
        $o->choose('[data-test=change-heights]', 'ellipsoidal');
        $o->await(
            static fn (): ?bool => str_contains($o->find('[data-test=change-says]')->getText(), 'Heights move by 52.9') ? true : null,
            'heights moving back',
        );
        $o->click('[data-test=confirm-change]');
        $o->see('Ellipsoidal heights');
    }

    public function testAFilesHeightsAndColumnsAreAskedBeforeItIsAccepted(): void
    {
        $o = self::$office;
        $file = $o->folder.'/exchanged.csv';
        file_put_contents(
            $file,
            "point,easting [m],northing [m],height [m],code\nW1,6028150.12,493200.55,177.2,X\nW2,6028180.12,493260.55,178.2,X\n",
        );
        $o->go('/p/1/intake');
        $o->see('all accepted');
        $o->bring($file);
        $o->find('[data-test=ask-swap]');
        self::assertFalse($o->find('[data-test=accept]')->isEnabled());
        $o->click('[data-test=swap-yes]');
        $o->choose('[data-test=heights]', 'above a geoid');
        $o->choose('[data-test=heights-geoid]', 'egm96_15.gtx');
        $o->await(static fn (): ?bool => $o->find('[data-test=accept]')->isEnabled() ? true : null, 'every question answered');
        $o->click('[data-test=accept]');
        $o->see('all accepted');
        $o->go('/p/1/reference?page=inverse');
        $o->choose('[data-test=inverse-from]', 'W1');
        $o->choose('[data-test=inverse-to]', 'W2');
        // 177.2 m above EGM96 is 230.1 m above the ellipsoid.
        $o->see('230.12');
    }

    public function testLatitudesAndLongitudesWithoutTheirMinusSignAreAskedAndPlaced(): void
    {
        $o = self::$office;
        $file = $o->folder.'/marks.csv';
        file_put_contents($file, "mark,latitude,longitude,ellipsoidal height [m],code\nGM1,54°24'00.60497\",3°05'54.21782\",221.25,X\n");
        $o->go('/p/1/intake');
        $o->see('all accepted');
        $o->bring($file);
        $o->find('[data-test=ask-sign]');
        self::assertFalse($o->find('[data-test=accept]')->isEnabled());
        // Choosing an easting lets go of the latitude; choosing the latitude again, of the easting.
        $o->choose("[aria-label='Column of easting']", 'latitude');
        $o->see('no column for northing');
        $o->choose("[aria-label='Column of latitude']", 'latitude');
        $o->choose("[aria-label='Column of longitude']", 'longitude');
        $o->choose("[aria-label='Unit of latitude']", '′');
        $o->click('[data-test=sign-yes]');
        $o->see('The sign of longitude is changed.');
        $o->await(static fn (): ?bool => $o->find('[data-test=accept]')->isEnabled() ? true : null, 'every question answered');
        $o->click('[data-test=accept]');
        $o->see('all accepted');
        $o->go('/p/1/reference?page=inverse');
        $o->choose('[data-test=inverse-from]', 'GM1');
        $o->choose('[data-test=inverse-to]', 'KT01');
        $o->see('grid distance');
    }

    public function testALocalizationShowsTheWrongPairAndBringsThePegsOntoTheGrid(): void
    {
        $o = self::$office;
        $o->go('/p/1/reference?page=localization');
        $o->click('[data-test=open-1]');
        $o->find('[data-test=suspect]');
        $o->see('KT06 does not fit the others');
        $o->see('σ 17');
        // Without the planted one the others fit to a few millimetres.
        $o->click("[aria-label='KT06 fits in plan']");
        $o->await(
            static fn (): ?bool => 1 === preg_match('/σ [0-5]\.\d mm/', $o->find('[data-test=fit-sigma]')->getText()) ? true : null,
            'the fit without the wrong pair',
        );
        $o->await(static fn (): ?bool => [] === $o->driver->findElements(
            \Facebook\WebDriver\WebDriverBy::cssSelector('[data-test=suspect]'),
        ) ? true : null, 'no pair to be suspected');
        $o->click('[data-test=hold-scale]');
        $o->await(
            static fn (): ?bool => str_contains($o->find('[data-test=parameters]')->getText(), '1.00000000') ? true : null,
            'the scale held at 1',
        );
        $o->click('[data-test=hold-scale]');
        $o->await(
            static fn (): ?bool => str_contains($o->find('[data-test=parameters]')->getText(), '0.99956') ? true : null,
            'the scale fitted',
        );
        $o->type('[data-test=localization-name]', 'Site grid without KT06');
        $o->click('[data-test=localization-keep]');
        $o->see('is kept with the project');
        $o->click('[data-test=apply-2]');
        $o->see('is applied; undo takes it back');
        $o->see('apply to 0 points');
        $o->find('body')->sendKeys("\u{E009}z\u{E000}");
        $o->see('known only locally');
    }

    public function testEverythingBetweenTwoPoints(): void
    {
        $o = self::$office;
        $o->go('/p/1/reference?page=inverse');
        $o->see('Factors at the points');
        $o->choose('[data-test=inverse-from]', 'KT01');
        $o->choose('[data-test=inverse-to]', 'KT09');
        $o->find('[data-test=inverse]');
        foreach ([
            'grid distance', 'ground distance', 'ellipsoidal distance', 'slope distance', 'geodetic azimuth',
            'combined factor', 'geodesic on GRS 1980',
        ] as $words) {
            $o->see($words);
        }
        $o->see('546.23');
    }
}
