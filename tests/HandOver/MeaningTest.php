<?php

declare(strict_types=1);

namespace App\Tests\HandOver;

use App\Tests\ApiTestCase;

/** What is handed over says what its numbers mean, and leaves out what has no place on the grid. */
final class MeaningTest extends ApiTestCase
{
    private const MARKS = 'point,easting [m],northing [m],ellipsoidal height '
        ."[m],held\nA,493612.345,6028050.5,221.25,enh\nB,493200,6028400,244.26,no\n";

    private function csv(): string
    {
        self::assertSame('done', $this->job('/handover', ['kind' => 'csv', 'surfaces' => []])['state']);
        $newest = array_column($this->get('/handover')['exports'], null, 'kind')['csv'];

        return $this->download("/handover/{$newest['id']}/file");
    }

    public function testTheRemarkNamesSystemAndHeights(): void
    {
        $this->accept('c.csv', self::MARKS);
        self::assertStringContainsString('# reference EPSG:25830 ETRS89 / UTM zone 30N, ellipsoidal heights, metres', $this->csv());
        $this->call('PUT', '/reference', ['reference' => 'EPSG:25830', 'heights' => 'geoid', 'geoid' => 'installed:egm96_15.gtx'], 200);
        $csv = $this->csv();
        self::assertStringContainsString('heights above egm96_15.gtx, metres', $csv);
        self::assertStringContainsString('A,493612.34500,6028050.50000,168.3', $csv);
    }

    public function testAnOwnSystemIsNamedByItsName(): void
    {
        $this->accept('c.csv', self::MARKS);
        $id = $this->post('/reference/design', ['height' => 230.0, 'name' => 'Tarn low'], 201)['id'];
        $this->call('PUT', '/reference', ['reference' => 'custom:'.$id, 'heights' => 'ellipsoidal'], 200);
        self::assertStringContainsString('# reference Tarn low, ellipsoidal heights, metres', $this->csv());
        self::assertSame('own · ellips.', array_column($this->get('')['stages'], 'caption', 'key')['reference']);
    }

    public function testPointsKnownOnlyLocallyStayBehindAndAreCounted(): void
    {
        $this->accept('c.csv', self::MARKS);
        $local = $this->bring('site.csv', "point,easting [m],northing [m],height [m],code\nL1,100,200,10,PEG\nL2,150,200,11,PEG\n");
        $this->call('PUT', "/intake/{$local['id']}/meaning", ['frame' => 'local'], 200);
        $this->post("/intake/{$local['id']}/accept");
        $csv = $this->csv();
        self::assertStringNotContainsString('L1', $csv);
        $export = $this->get('/handover')['exports'][0];
        self::assertTrue($export['holds']);
        self::assertSame(['2 points known only locally'], $export['leftOut']);
        self::assertArrayNotHasKey('PEG', $this->get('/terrain')['codes'], 'No surface is made of them either.');
        $this->call('PUT', '/reference', ['reference' => 'plane', 'heights' => 'local'], 200);
        self::assertStringContainsString('L1', $this->csv(), 'In a plane project all numbers are plane numbers.');
    }

    public function testFilesGoStaleWhenTheMeaningChanges(): void
    {
        $this->accept('c.csv', self::MARKS);
        $this->csv();
        self::assertSame([], $this->stale());
        $this->call('PUT', '/reference', ['reference' => 'EPSG:32630', 'heights' => 'ellipsoidal'], 200);
        self::assertArrayHasKey('export:csv', $this->stale());
        $this->post('/ledger/'.$this->get('')['undo'].'/undo');
        self::assertSame([], $this->stale());
    }
}
