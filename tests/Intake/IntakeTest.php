<?php

declare(strict_types=1);

namespace App\Tests\Intake;

use App\Tests\ApiTestCase;
use Demo\Generator;
use Demo\TruthModel;
use PHPUnit\Framework\Attributes\DataProvider;

final class IntakeTest extends ApiTestCase
{
    public function testEveryKindIsRecognisedCountedAndPlaced(): void
    {
        $files = (new Generator(new TruthModel()))->files();
        $control = $this->bring('a.csv', $files['control-kestrel-tarn.csv']);
        self::assertSame(
            ['control', ['points' => 4, 'held' => 1, 'weighted' => 3], true],
            [$control['kind'], $control['counts'], $control['acceptable']],
        );
        self::assertCount(4, $control['points']);
        self::assertSame([], $this->get('/points')['points'], 'A preview stores nothing in the project.');
        $this->post("/intake/{$control['id']}/accept");

        $rounds = $this->bring('b.csv', $files['rounds-crest.csv']);
        self::assertSame('total-station', $rounds['kind']);
        self::assertSame(['setups' => 12, 'pointings' => 58, 'targets' => 12, 'distances' => 58], $rounds['counts']);
        $vectors = $this->bring('c.csv', $files['vectors-static.csv']);
        self::assertSame('vectors', $vectors['kind']);
        self::assertNotSame([], $vectors['rays'], 'Vectors between known points are drawn.');
        $points = $this->bring('d.csv', $files['pit-topography.csv']);
        self::assertSame(['points', 488], [$points['kind'], $points['counts']['points']]);
        foreach ([$rounds, $vectors, $points] as $preview) {
            $this->post("/intake/{$preview['id']}/accept");
        }
        self::assertCount(492, $this->get('/points')['points']);
        self::assertSame(
            3 * 58 + 7,
            (int) $this->database()->fetchOne('SELECT COUNT(*) FROM observation WHERE project_id = ?', [$this->project]),
        );
        self::assertSame(
            ['accept-file', 'accept-file', 'accept-file', 'receive-file', 'receive-file', 'receive-file', 'accept-file', 'receive-file'],
            array_column($this->get('/ledger')['entries'], 'operation'),
        );
    }

    public function testUnitsAreAskedWhereTheHeadingIsSilent(): void
    {
        $preview = $this->bring('feet.csv', "point,easting,northing,height,code\nA,1000,2000,10,X\nB,1100,2000,11,X\n");
        self::assertSame([[
            'text' => 'In which unit are the lengths (easting, northing, height)?', 'fields' => ['e', 'n', 'h'],
            'units' => ['m', 'mm', 'cm', 'ft', 'ftUS'], 'offer' => 'm', 'why' => 'the project uses it',
        ]], $preview['questions']);
        self::assertFalse($preview['acceptable']);
        $refused = $this->post("/intake/{$preview['id']}/accept", [], 422);
        self::assertStringContainsString('In which unit are the lengths (easting, northing, height)?', $refused['detail']);

        $columns = array_column(array_filter($preview['fields'], static fn (array $f): bool => null !== $f['column']), 'column', 'key');
        $answered = $this->call(
            'PUT',
            "/intake/{$preview['id']}/mapping",
            ['kind' => 'points', 'columns' => $columns, 'units' => ['e' => 'ft', 'n' => 'ft', 'h' => 'ft']],
            200,
        );
        self::assertSame(['heights', 'far'], array_column($answered['meaning']['asks'], 'key'));
        self::assertTrue($this->answered($answered)['acceptable']);
        $this->post("/intake/{$preview['id']}/accept");
        $points = $this->get('/points')['points'];
        // The international foot is 0.3048 m by definition.
        self::assertEqualsWithDelta(304.8, $points[0]['e'], 1e-9);
        self::assertEqualsWithDelta(11 * 0.3048, $points[1]['h'], 1e-9);
    }

    public function testColumnsCanBeCorrected(): void
    {
        $preview = $this->bring('odd.csv', "wie;wohin [m];rauf [m];hinan [m]\n1;10,5;20,25;3,125\n2;11,5;21,25;4,125\n3;1;2;3\n");
        self::assertContains('order', array_column($preview['meaning']['asks'], 'key'), 'Told by the values, and not for sure.');
        $preview = $this->call(
            'PUT',
            "/intake/{$preview['id']}/mapping",
            ['kind' => 'points', 'columns' => ['name' => 0, 'e' => 1, 'n' => 2, 'h' => 3], 'units' => ['e' => 'm', 'n' => 'm', 'h' => 'm']],
            200,
        );
        self::assertSame([], $preview['findings']);
        $this->answered($preview);
        $this->post("/intake/{$preview['id']}/accept");
        self::assertSame(
            [10.5, 20.25, 3.125],
            \array_slice(array_values(array_intersect_key($this->get('/points')['points'][0], array_flip(['e', 'n', 'h']))), 0, 3),
        );
    }

    /** @return iterable<string, array{string, string}> */
    public static function unreadable(): iterable
    {
        yield 'empty' => ['', '/line 1: the file is empty/'];
        yield 'blank' => ["\n \n\n", '/line 1: the file is empty/'];
        yield 'binary' => ["\x89PNG\r\n\x1a\n\0\0\0\rIHDR", '/line 1: this is a binary file/'];
        yield 'remarks only' => ["# nothing\n# at all\n", '/holds remarks only/'];
        yield 'heading only' => ["point,easting [m],northing [m],height [m]\n", '/heading but no rows/'];
        yield 'no columns' => ["hello\nworld\n", '/no columns can be told apart/'];
    }

    #[DataProvider('unreadable')]
    public function testUnreadableFilesSayWhyAndStoreNothing(string $contents, string $reason): void
    {
        $preview = $this->bring('bad.csv', $contents);
        self::assertMatchesRegularExpression($reason, $preview['unreadable']);
        self::assertStringStartsWith('bad.csv, ', $preview['unreadable']);
        self::assertFalse($preview['acceptable']);
        $this->post("/intake/{$preview['id']}/accept", [], 422);
        self::assertSame(
            ['receive-file'], array_column($this->get('/ledger')['entries'], 'operation'),
            'It waits, and nothing else happened.',
        );
    }

    /** @return iterable<string, array{string, int, string}> file, line, message */
    public static function badLines(): iterable
    {
        $points = "point,easting [m],northing [m],height [m],code\nP1,10,20,3,A\n";
        yield 'truncated' => [$points."P2,10,2\nP3,1,", 4, '/n is missing; is the line cut off/'];
        yield 'not a number' => [$points."P2,ten,20,3,A\n", 3, '/e: "ten" is not a number/'];
        yield 'NaN' => [$points."P2,NaN,20,3,A\n", 3, '/e: "NaN" is not a number/'];
        yield 'infinite' => [$points."P2,1e999,20,3,A\n", 3, '/e: "1e999" is not a number/'];
        yield 'absurd' => [$points."P2,1e12,20,3,A\n", 3, '/e: 1000000000000 cannot be/'];
        yield 'twice' => [$points."P1,11,20,3,A\n", 3, '/point "P1" is already on line 2/'];
        $stations = "station,round,hi [m],target,ht [m],direction [deg],zenith [deg],slope distance [m]\nA,1,1.5,B,1.6,10,90,50\n";
        yield 'negative distance' => [$stations."A,1,1.5,C,1.6,20,90,-5\n", 3, '/slope distance: -5 m cannot be/'];
        yield 'millimetres as metres' => [
            $stations."A,1,1500,C,1.6,20,90,5\n", 3,
            '/instrument height: 1500\.000 m is too tall; is the unit right/',
        ];
        yield 'sights itself' => [$stations."A,1,1.5,A,1.6,20,90,5\n", 3, '/"A" sights itself/'];
        $vectors = "from,to,dX [m],dY [m],dZ [m],cov XX [m2],cov YY [m2],cov ZZ [m2]\nA,B,1,2,3,1e-6,1e-6,1e-6\n";
        yield 'no covariance' => [$vectors."A,C,1,2,3,-1,1e-6,1e-6\n", 3, '/covariance is not positive definite/'];
    }

    #[DataProvider('badLines')]
    public function testBadLinesAreNamedAndNothingIsHalfImported(string $contents, int $line, string $message): void
    {
        $preview = $this->bring('lines.csv', $contents);
        $errors = array_values(array_filter($preview['findings'], static fn (array $f): bool => 'error' === $f['severity']));
        self::assertSame($line, end($errors)['line']);
        self::assertMatchesRegularExpression($message, end($errors)['message']);
        $refused = $this->post("/intake/{$preview['id']}/accept", [], 422);
        self::assertMatchesRegularExpression('/lines\.csv line \d+: .*accept without them/', $refused['detail']);
        self::assertSame(0, (int) $this->database()->fetchOne(
            'SELECT (SELECT COUNT(*) FROM point WHERE project_id = ?) + (SELECT COUNT(*) FROM observation WHERE project_id = ?)',
            [$this->project, $this->project],
        ));
        $this->answered($preview);
        $this->post("/intake/{$preview['id']}/accept", ['leaveOutBad' => true]);
        self::assertGreaterThan(0, $this->get('/intake')['files'][0]['leftOut']);
    }

    public function testWrongUnitsAndNearNamesAreQuestioned(): void
    {
        $this->accept('control.csv', "point,easting [m],northing [m],height [m],held\nKT01,0,0,10,enh\nKT02,100,0,10,enh\n");
        $gon = $this->bring(
            'gon.csv',
            'station,hi [m],target,ht [m],direction [deg],zenith [deg],slope distance '
                ."[m]\nKT01,1.5,KT02,1.5,0,100.02,328.08\nKT01,1.5,kt-2,1.5,10,99.9,50\nKT01,1.5,N2,1.5,20,100.1,50\n",
        );
        $messages = implode("\n", array_column($gon['findings'], 'message'));
        self::assertStringContainsString('Are these gon?', $messages);
        self::assertStringContainsString('these look like feet read as metres', $messages);
        self::assertStringContainsString('kt-2 is new, but looks like KT02', $messages);
    }

    public function testTheSameFileTwiceIsRecognised(): void
    {
        $contents = "point,easting [m],northing [m],height [m],code\nP1,10,20,3,A\nP2,11,20,3,A\n";
        $this->accept('one.csv', $contents);
        $again = $this->bring('copy.csv', $contents);
        self::assertStringContainsString('the same file is already here as one.csv', $again['findings'][0]['message']);
        $this->call('DELETE', "/intake/{$again['id']}", null, 200);
        self::assertCount(1, $this->get('/intake')['files']);
    }

    public function testTheSecondFaceIsBroughtToTheFirst(): void
    {
        $this->accept(
            'faces.csv',
            'station,hi [m],target,ht [m],direction [deg],zenith [deg],slope distance '
                ."[m]\nA,1.5,B,1.5,10.0,88.0,100\nA,1.5,B,1.5,190.002,272.001,100\n",
        );
        $rows = $this->database()->fetchFirstColumn(
            "SELECT v1 FROM observation WHERE project_id = ? AND kind IN ('direction', 'zenith') ORDER BY id",
            [$this->project],
        );
        self::assertEqualsWithDelta([10.0, 88.0, 10.002, 87.999], array_map(floatval(...), $rows), 1e-9);
    }

    public function testNoFileAndBadMappingsAreProblems(): void
    {
        $this->post('/intake', [], 400);
        $preview = $this->bring('a.csv', "point,easting [m],northing [m],height [m]\nP1,10,20,3\nP2,11,20,3\n");
        self::assertSame(
            '/columns/e: is not a column of this file',
            $this->call('PUT', "/intake/{$preview['id']}/mapping", ['kind' => 'points', 'columns' => ['e' => 99]], 422)['detail'],
        );
        self::assertStringContainsString('is not a unit of length', $this->call(
            'PUT',
            "/intake/{$preview['id']}/mapping",
            ['kind' => 'points', 'columns' => ['e' => 1], 'units' => ['e' => 'gon']],
            422,
        )['detail']);
        $this->get('/intake/999999', 404);
    }
}
