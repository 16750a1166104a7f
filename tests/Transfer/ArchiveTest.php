<?php

declare(strict_types=1);

namespace App\Tests\Transfer;

use App\Account\UserRepository;
use App\Project\ProjectRepository;
use App\Tests\ApiTestCase;
use App\Transfer\ArchivedTables;
use Demo\LoadDemoCommand;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\HttpFoundation\File\UploadedFile;

/** A project goes out as one archive and comes back identical; a copy of it is a project of its own. */
final class ArchiveTest extends ApiTestCase
{
    /** So far apart are the numbers of one table and the next that none can be taken for another. */
    private const APART = 10_000_000;

    private const POINTS = "point,easting [m],northing [m],ellipsoidal height [m]\nA,493600.5,6028200.25,231.125\n";

    private const SYSTEM = 'PROJCRS["Site",BASEGEOGCRS["ETRS89",DATUM["European Terrestrial Reference System 1989",'
        .'ELLIPSOID["GRS 1980",6378137,298.257222101]],ID["EPSG",4258]],CONVERSION["site",METHOD["Transverse Mercator",ID["EPSG",9807]],'
        .'PARAMETER["Latitude of natural origin",0],PARAMETER["Longitude of natural origin",-2],'
        .'PARAMETER["Scale factor at natural origin",1],PARAMETER["False easting",100000],PARAMETER["False northing",0]],'
        .'CS[Cartesian,2],AXIS["(E)",east],AXIS["(N)",north],LENGTHUNIT["metre",1]]';

    /** @var list<string> */
    private array $tables = [];

    private function demo(): void
    {
        $this->tables = $this->service(ArchivedTables::class)->names();
        foreach ($this->tables as $i => $table) {
            $this->database()->executeStatement('DELETE FROM sqlite_sequence WHERE name = ?', [$table]);
            $this->database()->insert('sqlite_sequence', ['name' => $table, 'seq' => ($i + 10) * self::APART]);
        }
        $command = (new Application(self::$kernel ?? throw new \LogicException('No kernel.')))->find('mensura:demo');
        self::assertSame(0, (new CommandTester($command))->execute([]));
        $project = $this->service(ProjectRepository::class)->findOneBy(['name' => LoadDemoCommand::PROJECT]);
        $this->project = $project?->id() ?? 0;
        $this->signIn($this->service(UserRepository::class)->named('demo') ?? throw new \LogicException('No account.'));
    }

    /** What the demo leaves out: sets, remarks, a check, an answer. */
    private function more(): void
    {
        $cad = $this->get('/handover/cad');
        $set = [
            'name' => 'all', 'roles' => ['control'], 'surfaces' => [['id' => $cad['surfaces'][0]['id'], 'contours' => true]],
            'layers' => [['file' => $cad['layers'][0]['file'], 'layer' => $cad['layers'][0]['layer']]],
            'alignments' => [['file' => $cad['alignments'][0]['file'], 'name' => $cad['alignments'][0]['name']]],
            'catalogue' => $cad['catalogues'][0]['id'],
        ];
        $ids = ['cad' => $this->post('/handover/cad', $set)['set']];
        $layers = array_intersect_key($set, ['layers' => true]);
        $gis = ['name' => 'fences', 'format' => 'geojson', 'roles' => ['control'], 'unknown' => true];
        $ids['gis'] = $this->post('/handover/gis', $gis + $layers)['set'];
        foreach ($ids as $kind => $id) {
            $job = $this->get('/jobs/'.$this->post('/handover', ['kind' => $kind, 'surfaces' => [$id]], 202)['job']);
            self::assertSame('done', $job['state'], (string) $job['error']);
        }
        $slot = 'surface:'.$cad['surfaces'][0]['id'];
        $this->post('/remarks', ['about' => $slot, 'text' => 'Are the edges long enough?']);
        $this->post('/remarks', ['about' => $slot, 'text' => 'Yes.', 'answers' => $this->get('/remarks/'.$slot)[0]['id']]);
        $this->post('/remarks', ['about' => 'network', 'text' => 'Looked at.', 'checks' => true]);
    }

    public function testSystemsOfItsOwnComeAlong(): void
    {
        $this->accept('points.csv', self::POINTS);
        $this->accept('lines.dxf', implode("\n", [
            0, 'SECTION', 2, 'ENTITIES', 0, 'LINE', 8, 'KERB', 10, 493600, 20, 6028200, 11, 493610, 21, 6028210, 0, 'ENDSEC', 0, 'EOF', '',
        ]));
        // Another number than the one it has in the archive.
        $this->database()->insert('sqlite_sequence', ['name' => 'custom_system', 'seq' => 40]);
        $id = $this->post('/reference/custom', ['name' => 'Site', 'definition' => self::SYSTEM], 201)['id'];
        $this->call('PUT', '/reference', ['reference' => "custom:$id", 'heights' => 'ellipsoidal'], 200);
        [$path, $fingerprint] = $this->archive();
        $east = array_column($this->get('/points')['points'], 'e', 'name');
        $drawing = $this->get('/designs/'.$this->get('/designs')[0]['id']);
        $brought = $this->bringIn($path);
        $this->project = $brought['project'];
        $job = $this->get('/jobs/'.$brought['job']);
        self::assertSame('done', $job['state'], (string) $job['error']);
        self::assertNotSame("custom:$id", $this->get('')['reference']);
        self::assertSame($east, array_column($this->get('/points')['points'], 'e', 'name'));
        $moved = $this->get('/designs/'.$this->get('/designs')[0]['id']);
        self::assertSame([$drawing['x'], $drawing['y']], [$moved['x'], $moved['y']], 'the drawing follows the same steps');
        self::assertSame($fingerprint, $this->archive()[1]);
    }

    /** @return array{string, string, array<mixed>} path of the archive, its fingerprint, its manifest */
    private function archive(): array
    {
        $job = $this->post('/archives', [], 202)['job'];
        $view = $this->get("/jobs/$job");
        self::assertSame('done', $view['state'], (string) $view['error']);
        $path = (string) tempnam(sys_get_temp_dir(), 'archive');
        file_put_contents($path, $this->download("/archives/$job"));
        $zip = new \ZipArchive();
        $zip->open($path);
        $manifest = json_decode((string) $zip->getFromName('archive.json'), true);
        foreach ($manifest['entries'] as $name => $entry) {
            self::assertSame($entry['sha256'], hash('sha256', (string) $zip->getFromName($name)), $name);
        }
        self::assertSame($this->get('/archives')[0]['fingerprint'], $manifest['fingerprint']);

        return [$path, $manifest['fingerprint'], $manifest];
    }

    /** @return array<mixed> */
    private function bringIn(string $path, int $status = 202): array
    {
        $this->client->request(
            'POST', '/api/archives', [], ['file' => new UploadedFile($path, 'project.zip', null, null, true)],
            ['HTTP_X_MENSURA_TOKEN' => $this->token, 'HTTP_ACCEPT' => 'application/json'],
        );
        $content = (string) $this->client->getResponse()->getContent();
        self::assertSame($status, $this->client->getResponse()->getStatusCode(), substr($content, 0, 800));

        return json_decode($content, true);
    }

    /** @return array<string, mixed> what a page shows of a project, without numbers of rows */
    private function shown(): array
    {
        $overview = $this->get('');
        unset($overview['id'], $overview['revision']);
        $entry = static fn (array $e): array => [$e['seq'], $e['operation'], $e['title'], $e['author'], $e['at']];
        $file = static fn (array $e): array => [$e['name'], $e['sha256'], $e['holds'], \count($e['stale'])];

        return [
            'stale' => array_map(static fn (array $s): array => [$s['label'], $s['reasons']], $overview['stale']),
            'stages' => array_map(static fn (array $s): array => [$s['words'] ?? null, $s['state'] ?? null], $overview['stages'] ?? []),
            'ledger' => array_map($entry, $this->get('/ledger')['entries']),
            'handover' => array_map($file, $this->get('/handover')['exports']),
        ];
    }

    public function testTheDemoComesBackIdenticalBesideItself(): void
    {
        $this->demo();
        $this->more();
        $original = $this->project;
        [$path, $fingerprint, $manifest] = $this->archive();
        self::assertSame('mensura-archive/1', $manifest['format']);
        self::assertSame(LoadDemoCommand::PROJECT, $manifest['project']['name']);
        self::assertSame(['Demo Surveyor'], $manifest['people'], 'names of accounts stay in the office');
        $before = $this->shown();
        $summaries = array_column($this->get('/network')['runs'] ?? [], 'run');

        $brought = $this->bringIn($path);
        $this->project = $brought['project'];
        $job = $this->get('/jobs/'.$brought['job']);
        self::assertSame('done', $job['state'], (string) $job['error']);
        self::assertNotSame($original, $this->project);

        self::assertSame($before, $this->shown());
        self::assertSame($summaries, array_column($this->get('/network')['runs'] ?? [], 'run'));
        self::assertSame($fingerprint, $this->archive()[1]);
        self::assertSame([], $this->old($original), 'no number of the first project stands in the second');

        $command = new CommandTester((new Application(self::$kernel ?? throw new \LogicException('No kernel.')))->find('mensura:bring'));
        self::assertSame(0, $command->execute(['archive' => $path, 'account' => 'demo']));
        self::assertSame(1, preg_match('/is project (\d+)/', $command->getDisplay(), $m));
        $this->project = (int) ($m[1] ?? 0);
        self::assertSame($before, $this->shown());
        self::assertSame(2, $command->execute(['archive' => $path, 'account' => 'nobody']));
        self::assertSame(2, $command->execute(['archive' => __FILE__, 'account' => 'demo']));
    }

    public function testACopyIsAProjectOfItsOwn(): void
    {
        $this->accept('points.csv', self::POINTS."B,493610.5,6028210.25,232.5\n");
        $original = $this->project;
        $ledger = $this->get('')['ledgerCount'];
        $job = $this->get('/jobs/'.$this->post('/copy', ['called' => 'Trying things'], 202)['job']);
        self::assertSame(['done', 'Trying things'], [$job['state'], $job['outcome']['name']], (string) $job['error']);
        $copy = $this->service(ProjectRepository::class)->findOneBy(['name' => 'Trying things']);
        $this->project = $copy?->id() ?? 0;
        self::assertSame('owner', $this->get('')['role']);
        self::assertSame(['A', 'B'], array_column($this->get('/points')['rows'] ?? $this->get('/points')['points'], 'name'));
        for ($seq = $this->get('')['undo']; null !== $seq && 0 !== $seq; $seq = $this->get('')['undo']) {
            $this->post("/ledger/$seq/undo");
        }
        self::assertSame(0, $this->get('')['pointCount'] ?? \count($this->get('/points')['points'] ?? []));
        $this->project = $original;
        self::assertSame($ledger, $this->get('')['ledgerCount'], 'the first is as it was');
        self::assertCount(2, $this->get('/points')['points'] ?? $this->get('/points')['rows']);
    }

    /** @return iterable<string, array{\Closure(\ZipArchive): mixed, string}> */
    public static function damaged(): iterable
    {
        $edit = static fn (string $path, string $from, string $to) => static function (\ZipArchive $zip) use ($path, $from, $to): void {
            $text = str_replace($from, $to, (string) $zip->getFromName($path), $count);
            self::assertGreaterThan(0, $count, $path);
            $zip->addFromString($path, $text);
            $manifest = json_decode((string) $zip->getFromName('archive.json'), true);
            $manifest['entries'][$path] = ['sha256' => hash('sha256', $text), 'bytes' => \strlen($text)];
            $zip->addFromString('archive.json', (string) json_encode($manifest));
        };
        yield 'no manifest' => [static fn (\ZipArchive $z) => $z->deleteName('archive.json'), 'has no archive.json'];
        $other = '{"format":"x/1"}';
        yield 'another format' => [static fn (\ZipArchive $z) => $z->addFromString('archive.json', $other), 'not of the format'];
        yield 'a changed entry' => [static fn (\ZipArchive $z) => $z->addFromString('tables/point.jsonl', "[]\n"), 'damaged or changed'];
        yield 'an entry more' => [static fn (\ZipArchive $z) => $z->addFromString('../more', 'x'), 'the archive is not whole'];
        yield 'an entry less' => [static fn (\ZipArchive $z) => $z->deleteName('tables/point.jsonl'), 'the archive is not whole'];
        yield 'a column that is none' => [$edit('tables/point.jsonl', '"code"', '"code) VALUES (1); --"'), 'columns that are not known'];
        yield 'a journal of another table' => [$edit('ledger/1.jsonl', '"survey_file"', '"account"'), 'not about a table of a project'];
        yield 'a journal of another column' => [$edit('ledger/1.jsonl', '"sha256"', '"id = 1; --"'), 'columns that are not known'];
        yield 'a number that is none' => [$edit('tables/point.jsonl', '493600.5', '"x"'), 'not what this column holds'];
        yield 'a row of nothing' => [$edit('tables/survey_file.jsonl', "\n[1,", "\n[77,"), 'number 77 is referred to and is not there'];
        yield 'no list' => [$edit('tables/point.jsonl', "\n[1,", "\n{1,"), 'is not a list'];
    }

    /** @param \Closure(\ZipArchive): mixed $damage */
    #[DataProvider('damaged')]
    public function testADamagedArchiveIsRefusedWithTheReason(\Closure $damage, string $says): void
    {
        $this->accept('points.csv', self::POINTS);
        [$path] = $this->archive();
        $zip = new \ZipArchive();
        $zip->open($path);
        $damage($zip);
        $zip->close();
        $projects = \count($this->get('/api/projects'));
        $this->client->request(
            'POST', '/api/archives', [], ['file' => new UploadedFile($path, 'project.zip', null, null, true)],
            ['HTTP_X_MENSURA_TOKEN' => $this->token, 'HTTP_ACCEPT' => 'application/json'],
        );
        $answer = json_decode((string) $this->client->getResponse()->getContent(), true);
        if (202 !== $this->client->getResponse()->getStatusCode()) {
            self::assertStringContainsString($says, $answer['detail']);
            self::assertCount($projects, $this->get('/api/projects'), 'nothing is begun');

            return;
        }
        $this->project = $answer['project'];
        $job = $this->get('/jobs/'.$answer['job']);
        self::assertSame('failed', $job['state']);
        self::assertStringContainsString($says, $job['error']);
        self::assertSame(0, $this->get('')['ledgerCount'], 'nothing of it is kept');
    }

    /**
     * Numbers of the first project within rows of the second, wherever they stand.
     *
     * @return list<string>
     */
    private function old(int $original): array
    {
        $most = [];
        foreach ($this->tables as $table) {
            $of = 'project' === $table ? 'id' : 'project_id';
            $most[$table] = (int) $this->database()->fetchOne("SELECT MAX(id) FROM $table WHERE $of = ?", [$original]);
        }
        $found = [];
        foreach ($this->tables as $table) {
            $of = 'project' === $table ? 'id' : 'project_id';
            foreach ($this->database()->fetchAllAssociative("SELECT * FROM $table WHERE $of = ?", [$this->project]) as $row) {
                foreach ($row as $column => $value) {
                    preg_match_all('/(?<![0-9a-f.-])\d{9}(?![0-9a-f.])/', (string) $value, $numbers);
                    foreach ($numbers[0] as $number) {
                        $whose = $this->tables[intdiv((int) $number, self::APART) - 10] ?? null;
                        if (null !== $whose && (int) $number <= $most[$whose]) {
                            $found["$table.$column: $whose"] = true;
                        }
                    }
                }
            }
        }

        return array_keys($found);
    }
}
