<?php

declare(strict_types=1);

namespace App\Tests\Intake;

use App\Tests\ApiTestCase;

/** Several files at once: a zip, twins, names that may be one mark, mappings that are remembered. */
final class QueueTest extends ApiTestCase
{
    private const HEAD = "point,easting [m],northing [m],ellipsoidal height [m]\n";

    /** @param array<string, string> $files */
    private static function zip(array $files): string
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'zip');
        $zip = new \ZipArchive();
        $zip->open($path, \ZipArchive::OVERWRITE);
        foreach ($files as $name => $contents) {
            $zip->addFromString($name, $contents);
        }
        $zip->close();
        $bytes = (string) file_get_contents($path);
        unlink($path);

        return $bytes;
    }

    public function testTheFilesOfAZipComeAsOneEntry(): void
    {
        $zip = self::zip([
            'day 1/a.csv' => self::HEAD."A,493612.3,6028050.5,221\n", 'day 1/b.csv' => self::HEAD."B,493622.3,6028050.5,221\n",
            '__MACOSX/a.csv' => 'x', '.DS_Store' => 'x',
        ]);
        $list = $this->upload('/intake/zip', 'field.zip', $zip, 200);
        self::assertSame(['a.csv', 'b.csv'], array_column($list['files'], 'name'));
        $entries = $this->get('/ledger')['entries'];
        self::assertSame('Received 2 files from field.zip', $entries[0]['title']);
        $this->post("/ledger/{$entries[0]['seq']}/undo");
        self::assertSame([], $this->get('/intake')['files']);
        self::assertStringContainsString('cannot be opened as a zip', $this->upload('/intake/zip', 'no.zip', 'PK nothing', 422)['detail']);
        self::assertStringContainsString('holds no file', $this->upload('/intake/zip', 'e.zip', self::zip(['.x' => '1']), 422)['detail']);
    }

    public function testTheSameFileTwiceIsRecognisedWhileItWaits(): void
    {
        $text = self::HEAD."A,493612.3,6028050.5,221\n";
        $first = $this->bring('a.csv', $text);
        $second = $this->bring('copy of a.csv', $text);
        self::assertSame(['', 'a.csv'], [$this->get("/intake/{$first['id']}")['twin'], $second['twin']]);
        self::assertContains('the same file is already here as a.csv, and waits', array_column($second['findings'], 'message'));
    }

    public function testNamesAreAskedAcrossTheFilesWithTheirDistance(): void
    {
        $this->accept('known.csv', self::HEAD."KT01,493612.300,6028050.500,221\n");
        $list = $this->bring('list.csv', self::HEAD."kt-1,493612.330,6028050.540,221.02\nPEG,493700,6028100,220\n");
        $again = $this->bring('again.csv', self::HEAD."NAIL,493700.030,6028100.040,220.01\nFAR,493800,6028100,220\n");
        $names = $this->get('/intake/names');
        self::assertSame(
            [['kt-1', 'KT01', 'the project', true], ['NAIL', 'PEG', 'list.csv', false]],
            array_map(static fn (array $n): array => [$n['name'], $n['other'], $n['where'], $n['alike']], $names),
        );
        self::assertEqualsWithDelta([0.05, -0.02], [$names[0]['plan'], $names[0]['height']], 1e-6);

        // One mark: the file's name becomes the known one, and stays answered.
        $merged = $this->call('PUT', "/intake/{$list['id']}/names", ['names' => [['from' => 'kt-1', 'to' => 'KT01']]], 200);
        self::assertContains('KT01', array_column($merged['points'], 'name'));
        // Two marks: not asked again.
        $this->call('PUT', "/intake/{$again['id']}/names", ['names' => [['from' => 'NAIL', 'to' => 'NAIL']]], 200);
        self::assertSame(
            [['kt-1', 'KT01'], ['NAIL', 'NAIL']],
            array_map(static fn (array $n): array => [$n['name'], $n['answer']], $this->get('/intake/names')),
        );
        $seq = $this->get('/ledger')['entries'][1]['seq'];
        self::assertSame('Said what names of list.csv stand for', $this->get('/ledger')['entries'][1]['title']);
        $this->post("/ledger/$seq/undo");
        self::assertNull($this->get('/intake/names')[0]['answer'], 'undone, it is asked again');
    }

    public function testTheSameNameLyingApartIsAskedToo(): void
    {
        $this->accept('known.csv', self::HEAD."KT01,493612.300,6028050.500,221\nKT02,493700,6028000,220\n");
        $file = $this->bring('again.csv', self::HEAD."KT01,493612.340,6028050.530,221.01\nKT02,493700.005,6028000.005,220.005\n");
        $names = $this->get('/intake/names');
        self::assertSame(
            [['KT01', 'KT01', null]],
            array_map(static fn (array $n): array => [$n['name'], $n['other'], $n['answer']], $names),
        );
        self::assertEqualsWithDelta([0.05, -0.01], [$names[0]['plan'], $names[0]['height']], 1e-6);
        // Two marks: the new one gets a name of its own.
        $two = $this->call('PUT', "/intake/{$file['id']}/names", ['names' => [['from' => 'KT01', 'to' => 'KT01A']]], 200);
        self::assertContains('KT01A', array_column($two['points'], 'name'));
        // One mark: said, and not asked again.
        $this->call('PUT', "/intake/{$file['id']}/names", ['names' => [['from' => 'KT01', 'to' => 'KT01']]], 200);
        self::assertSame(['KT01'], array_column($this->get('/intake/names'), 'answer'));
    }

    public function testObservationsFollowTheNameOfTheFile(): void
    {
        $file = $this->bring(
            'book.csv',
            "station,hi [m],target,ht [m],direction [deg],zenith [deg],slope distance [m]\nA-1,1.5,B,1.5,0,90,100\nA-1,1.5,C,1.5,9,90,90\n",
        );
        $this->call('PUT', "/intake/{$file['id']}/names", ['names' => [['from' => 'A-1', 'to' => 'A1']]], 200);
        $this->post("/intake/{$file['id']}/accept");
        self::assertSame(
            ['A1'],
            $this->database()->fetchFirstColumn('SELECT DISTINCT from_name FROM observation WHERE project_id = ?', [$this->project]),
        );
    }

    public function testAMappingIsRememberedByItsHeadingsRenamedAndForgotten(): void
    {
        $text = "mark,to the east,to the north,up\n%s,493612.3,6028050.5,221\n";
        $first = $this->bring('first.csv', \sprintf($text, 'A'));
        self::assertNull($first['memory']);
        $mapping = [
            'kind' => 'points', 'columns' => ['name' => 0, 'e' => 1, 'n' => 2, 'h' => 3], 'units' => ['e' => 'm', 'n' => 'm', 'h' => 'm'],
        ];
        $this->answered($this->call('PUT', "/intake/{$first['id']}/mapping", $mapping, 200));
        $this->post("/intake/{$first['id']}/accept");

        $second = $this->bring('second.csv', \sprintf($text, 'B'));
        self::assertSame('surveyed points like first.csv', $second['memory']['label']);
        self::assertSame([], $second['questions']);
        self::assertSame(['as it was remembered'], array_unique(array_filter(array_column($second['fields'], 'why'))));

        $path = "/intake/memories/{$second['memory']['id']}";
        $this->call('PUT', $path, ['label' => ' '], 422);
        $this->call('PUT', $path, ['label' => 'our logger'], 204);
        self::assertSame('our logger', $this->get("/intake/{$second['id']}")['memory']['label']);
        $this->call('DELETE', $path, null, 204);
        self::assertNull($this->get("/intake/{$second['id']}")['memory']);
        self::assertNull($this->bring('third.csv', \sprintf($text, 'C'))['memory']);
        $this->call('DELETE', $path, null, 404);
    }
}
