<?php

declare(strict_types=1);

namespace App\Tests\Store;

use App\Store\FileStore;
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
