<?php

declare(strict_types=1);

namespace App\Tests\Ledger;

use App\Tests\ApiTestCase;
use Demo\Generator;
use Demo\TruthModel;

/** Whatever is done can be undone to the last bit, done again to the last bit, and undone with all that came after it. */
final class RoundTripTest extends ApiTestCase
{
    private const TABLES = [
        'project', 'survey_file', 'point', 'observation', 'surface', 'result', 'custom_system', 'grid_file',
        'localization',
    ];

    /** Every operation of the application, one after the other: a state before, a state after, and both found again. */
    public function testEveryOperationGoesBackAndForth(): void
    {
        $seen = [];
        $seq = 0;
        foreach ($this->operations() as $name => $act) {
            $before = $this->state();
            $act();
            $after = $this->state();
            self::assertNotSame($before, $after, $name.' changed nothing.');
            $entries = array_filter($this->get('/ledger')['entries'], static fn (array $e): bool => $e['seq'] > $seq);
            foreach ($entries as $entry) {
                $seen[$entry['operation']] = true;
                self::assertNotSame('', $entry['title']);
            }
            // Most are one entry; a surface is defined and then computed.
            $this->post("/ledger/$seq/back");
            self::assertSame($before, $this->state(), $name.' taken back.');
            $this->post('/ledger/'.$this->newest().'/undo');
            self::assertSame($after, $this->state(), $name.' done again.');
            if (1 === \count($entries)) {
                $entry = reset($entries)['seq'];
                $this->post("/ledger/$entry/undo");
                self::assertSame($before, $this->state(), $name.' undone.');
                $this->post('/ledger/'.$this->newest().'/undo');
                self::assertSame($after, $this->state(), $name.' done a third time.');
            }
            $seq = $this->newest();
        }
        self::assertGreaterThanOrEqual(18, \count($seen), implode(', ', array_keys($seen)));
    }

    public function testBackToTheBeginningLeavesAnEmptyProject(): void
    {
        $empty = $this->state();
        foreach ($this->operations() as $act) {
            $act();
        }
        $this->post('/ledger/0/back');
        self::assertSame($empty, $this->state());
        self::assertSame([], $this->stale());
    }

    public function testADiscardedFileComesBack(): void
    {
        $file = $this->bring('wrong.csv', "point,easting [m],northing [m],height [m]\nX,1,2,3\n");
        $this->call('DELETE', "/intake/{$file['id']}", null, 200);
        self::assertCount(0, $this->get('/intake')['files']);
        $this->post('/ledger/'.$this->newest().'/undo');
        self::assertSame(['wrong.csv', 'waiting'], [$this->get('/intake')['files'][0]['name'], $this->get('/intake')['files'][0]['state']]);
        self::assertSame('points', $this->get("/intake/{$file['id']}")['kind']);
    }

    public function testALaterChangeOfTheSameRowIsNotLost(): void
    {
        $this->accept('control.csv', (new Generator(new TruthModel()))->files()['control-kestrel-tarn.csv']);
        $first = $this->call('PUT', '/control', ['point' => 'KT04', 'e' => 493212.0, 'n' => 6028408.0, 'h' => 244.0], 200)['seq'];
        $this->call('PUT', '/reference', ['reference' => 'EPSG:32630', 'heights' => 'ellipsoidal'], 200);
        $state = $this->state();
        self::assertStringContainsString('A later entry changed the same thing', $this->post("/ledger/$first/undo", [], 409)['detail']);
        self::assertSame($state, $this->state(), 'A refused undo changes nothing.');
    }

    /** @return iterable<string, \Closure(): mixed> in the order of a working day */
    private function operations(): iterable
    {
        $files = (new Generator(new TruthModel()))->files();
        foreach ($files as $name => $contents) {
            yield 'accept '.$name => fn () => $this->accept($name, $contents);
        }
        yield 'units' => fn () => $this->call('PUT', '/units', ['length' => 'ft', 'angle' => 'gon', 'decimals' => 2], 200);
        yield 'weights' => fn () => $this->call('PUT', '/network/settings', [
            'directionSd' => 2.0, 'zenithSd' => 3.0, 'distanceConstant' => 0.002, 'distancePpm' => 2.0,
            'instrumentCentring' => 0.001, 'targetCentring' => 0.001, 'heightCentring' => 0.001, 'refraction' => 0.13,
            'confidence' => 0.95, 'free' => false,
        ], 200);
        yield 'control' => fn () => $this->call(
            'PUT',
            '/control',
            ['point' => 'KT04', 'e' => 493212.087, 'n' => 6028408.339, 'h' => 244.26, 'held' => 'h', 'sdE' => 0.01, 'sdN' => 0.01],
            200,
        );
        yield 'rename' => fn () => $this->post('/points/rename', ['from' => 'KT12', 'to' => 'PILLAR 12']);
        yield 'adjust' => fn () => $this->job('/network/adjust');
        yield 'set aside' => fn () => $this->post('/network/use', ['rows' => [[
            'id' => (int) $this->database()->fetchOne("SELECT MIN(id) FROM observation WHERE kind = 'direction'"),
            'component' => null,
        ]], 'aside' => true, 'reason' => 'not on the mark']);
        yield 'adjust again' => fn () => $this->job('/network/adjust');
        yield 'accept coordinates' => fn () => $this->post('/network/accept');
        yield 'surface' => fn () => $this->post('/terrain/surfaces', ['name' => 'Pit', 'roles' => ['surveyed'], 'lines' => [[
            'role' => 'boundary',
            'name' => 'limit',
            'points' => [],
            'vertices' => [[493536.0, 6028006.0], [493704.0, 6028006.0], [493704.0, 6028112.0]],
        ]], 'interval' => 1.0], 202);
        yield 'volume' => fn () => $this->job('/terrain/volumes', [
            'name' => 'Pit', 'surface' => $this->surface(), 'against' => 'elevation', 'elevation' => 225.0,
        ]);
        yield 'hand over' => fn () => $this->job('/handover', ['kind' => 'csv', 'surfaces' => []]);
        yield 'own system' => fn () => $this->post(
            '/reference/custom',
            ['name' => 'Own', 'definition' => '+proj=tmerc +lat_0=54 +lon_0=-3 +k=1.00003 +x_0=50000 +y_0=10000 +ellps=GRS80'],
            201,
        );
        yield 'low distortion' => fn () => $this->post('/reference/design', ['height' => 230.0, 'name' => 'Low'], 201);
        yield 'ground' => fn () => $this->post('/reference/ground', ['point' => 'KT01', 'name' => 'Ground'], 201);
        yield 'extract' => fn () => $this->post(
            '/reference/extract',
            ['geoid' => 'installed:egm96_15.gtx', 'by' => 'radius', 'lat' => 54.4, 'lon' => -3.1, 'radiusKm' => 40.0],
            201,
        );
        yield 'import a grid' => fn () => $this->upload(
            '/reference/grids', 'tarn.gtx', $this->download('/reference/grids/'.$this->grid().'.gtx'),
        );
        yield 'change of system' => fn () => $this->call(
            'PUT', '/reference', ['reference' => 'EPSG:25829', 'heights' => 'ellipsoidal'], 200,
        );
        yield 'change of heights' => fn () => $this->call(
            'PUT',
            '/reference',
            ['reference' => 'EPSG:25829', 'heights' => 'geoid', 'geoid' => 'grid:'.$this->grid()],
            200,
        );
        yield 'local file' => function (): void {
            $file = $this->bring('site.csv', "point,easting [m],northing [m],height [m],code\nSP1,100,200,10,PEG\nSP2,150,200,11,PEG\n");
            $this->call('PUT', "/intake/{$file['id']}/meaning", ['frame' => 'local'], 200);
            $this->post("/intake/{$file['id']}/accept");
        };
        yield 'localization' => fn () => $this->post('/reference/localizations', [
            'name' => 'Site', 'system' => 'EPSG:25829', 'heights' => 'geoid', 'geoid' => 'grid:'.$this->grid(),
            'pairs' => [
                [
                    'name' => 'a', 'localE' => 0.0, 'localN' => 0.0, 'localH' => 0.0, 'gridE' => 882000.0,
                    'gridN' => 6044000.0, 'gridH' => 180.0, 'horizontal' => true, 'vertical' => true,
                ],
                [
                    'name' => 'b', 'localE' => 100.0, 'localN' => 0.0, 'localH' => 1.0, 'gridE' => 882100.0,
                    'gridN' => 6044000.0, 'gridH' => 181.0, 'horizontal' => true, 'vertical' => true,
                ],
            ]], 201);
        yield 'apply' => fn () => $this->post(
            '/reference/localizations/'.(int) $this->database()->fetchOne('SELECT MAX(id) FROM localization').'/apply',
        );
    }

    private function newest(): int
    {
        return $this->get('/ledger')['entries'][0]['seq'];
    }

    private function surface(): int
    {
        return (int) $this->database()->fetchOne('SELECT MAX(id) FROM surface');
    }

    private function grid(): int
    {
        return (int) $this->database()->fetchOne("SELECT MIN(id) FROM grid_file WHERE project_id = ? AND kind = 'geoid'", [$this->project]);
    }

    /** @return array<string, list<array<string, mixed>>> all rows of the project, without counters and what only waits */
    private function state(): array
    {
        $state = [];
        foreach (self::TABLES as $table) {
            $where = 'project' === $table ? 'id = ?' : 'project_id = ?'.('survey_file' === $table ? " AND state = 'accepted'" : '');
            $state[$table] = array_map(static function (array $row): array {
                unset($row['revision'], $row['version']);

                return $row;
            }, $this->database()->fetchAllAssociative("SELECT * FROM $table WHERE $where ORDER BY id", [$this->project]));
        }

        return $state;
    }
}
