<?php

declare(strict_types=1);

namespace App\Tests\Store;

use App\Store\FileStore;
use App\Store\StoreFault;
use App\Tests\ApiTestCase;

final class FileStoreTest extends ApiTestCase
{
    public function testContentsAreFoundByTheirHashAndKeptOnce(): void
    {
        $folder = sys_get_temp_dir().'/store-'.bin2hex(random_bytes(4));
        $store = new FileStore($folder);
        $hash = $store->put("as received\r\n");
        self::assertSame(hash('sha256', "as received\r\n"), $hash);
        self::assertSame($hash, $store->put("as received\r\n"));
        self::assertSame("as received\r\n", $store->get($hash));
        self::assertEquals(['a' => [1.5, 2.0], 'b' => null], $store->getJson($store->putJson(['a' => [1.5, 2.0], 'b' => null])));
        self::assertCount(1, glob($folder.'/*/*/'.$hash) ?: []);
        $this->expectException(\InvalidArgumentException::class);
        $store->get('../../etc/passwd');
    }

    /** A disk that was full, or a machine that gave out, must not leave a part of a file that is trusted for the whole. */
    public function testAFileCutShortIsNotTrustedAndIsMendedByBringingItAgain(): void
    {
        $folder = sys_get_temp_dir().'/store-'.bin2hex(random_bytes(4));
        $contents = str_repeat("P,1.000,2.000,3.000\n", 3000);
        $hash = (new FileStore($folder))->put($contents);
        $path = $folder.'/'.substr($hash, 0, 2).'/'.substr($hash, 2, 2).'/'.$hash;
        file_put_contents($path, substr($contents, 0, 52100));
        foreach (['get', 'localPath'] as $read) {
            try {
                (new FileStore($folder))->$read($hash);
                self::fail("$read gave a part of the file.");
            } catch (StoreFault $e) {
                self::assertStringContainsString('is damaged', $e->getMessage());
            }
        }
        $store = new FileStore($folder);
        self::assertSame($hash, $store->put($contents));
        self::assertSame($contents, (new FileStore($folder))->get($hash));
        unlink($path);
        $this->expectException(StoreFault::class);
        $this->expectExceptionMessage('is not there any more');
        (new FileStore($folder))->get($hash);
    }

    public function testAFileWrittenElsewhereIsTakenWholeAndIsGoneFromThere(): void
    {
        $folder = sys_get_temp_dir().'/store-'.bin2hex(random_bytes(4));
        $store = new FileStore($folder);
        foreach (['first', 'again'] as $time) {
            $path = (string) tempnam(sys_get_temp_dir(), 'take');
            file_put_contents($path, 'a drawing');
            self::assertSame(hash('sha256', 'a drawing'), $store->take($path), $time);
            self::assertFileDoesNotExist($path);
        }
        self::assertSame(9, $store->size(hash('sha256', 'a drawing')));
        self::assertSame([], array_diff(scandir($folder.'/incoming') ?: [], ['.', '..']), 'Nothing is left aside.');
    }

    public function testTheDatabaseIsAsTheHouseWantsIt(): void
    {
        self::assertSame('wal', $this->database()->fetchOne('PRAGMA journal_mode'));
        self::assertEquals(1, $this->database()->fetchOne('PRAGMA foreign_keys'));
        self::assertGreaterThanOrEqual(5000, $this->database()->fetchOne('PRAGMA busy_timeout'));
        $this->expectException(\Doctrine\DBAL\Exception\ForeignKeyConstraintViolationException::class);
        $this->database()->insert('point', ['project_id' => 4711, 'name' => 'X', 'role' => 'control', 'source' => 'file']);
    }

    public function testFilesComeBackAsTheyWereReceived(): void
    {
        $contents = "\xEF\xBB\xBFpoint;easting [m];northing [m];height [m]\r\nP1;1,5;2,5;3,5\r\nP2;1,5;9,5;3,5\r\n";
        $preview = $this->bring("../odd/na\tme.csv", $contents);
        self::assertStringNotContainsString('/', $preview['name']);
        $this->client->request('GET', "/api/projects/{$this->project}/intake/{$preview['id']}/source");
        self::assertSame($contents, $this->client->getInternalResponse()->getContent());
        self::assertSame(hash('sha256', $contents), $preview['sha256']);
        self::assertStringStartsWith('attachment', (string) $this->client->getResponse()->headers->get('Content-Disposition'));
    }
}
