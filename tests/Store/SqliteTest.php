<?php

declare(strict_types=1);

namespace App\Tests\Store;

use App\Store\SqlitePragmas;
use App\Tests\ApiTestCase;

/** What every connection promises. */
final class SqliteTest extends ApiTestCase
{
    public function testReadersNeverWaitAndForeignKeysHold(): void
    {
        $db = $this->database();
        self::assertSame(1, (int) $db->fetchOne('PRAGMA foreign_keys'));
        self::assertGreaterThanOrEqual(5000, (int) $db->fetchOne('PRAGMA busy_timeout'));
        $this->expectException(\Doctrine\DBAL\Exception\ForeignKeyConstraintViolationException::class);
        $db->insert('point', ['project_id' => 999999, 'name' => 'X', 'role' => 'control', 'source' => 'file', 'code' => '']);
    }

    /** SQLite's own reading of seventeen digits may miss the last bit; ours does not. */
    public function testFloatsKeepEveryBit(): void
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(7));
        for ($i = 0; $i < 3000; ++$i) {
            $value = $random->getInt(-(2 ** 52), 2 ** 52) / 2 ** 52 * 10 ** $random->getInt(-6, 8);
            $back = $this->database()->fetchOne('SELECT '.SqlitePragmas::EXACT.'(?)', [json_encode($value)]);
            self::assertSame($value, $back);
        }
        self::assertSame(6044148.238_792_871_6, $this->database()->fetchOne('SELECT '.SqlitePragmas::EXACT.'(?)', ['6044148.2387928716']));
    }

    public function testTheJournalStoresWhatItRecords(): void
    {
        $this->accept('c.csv', "point,easting [m],northing [m],ellipsoidal height [m],held\nA,493612.345,6028050.5,221.25,enh\n");
        foreach (['EPSG:25829', 'EPSG:32630', 'EPSG:25831', 'EPSG:25830'] as $reference) {
            $seq = $this->call('PUT', '/reference', ['reference' => $reference, 'heights' => 'ellipsoidal'], 200)['seq'];
            $change = array_values(array_filter(
                $this->get("/ledger/$seq")['changes'], static fn (array $c): bool => isset($c['after']['e']),
            ))[0];
            self::assertSame(
                (float) $this->database()->fetchOne('SELECT e FROM point WHERE project_id = ?', [$this->project]),
                (float) $change['after']['e'],
            );
        }
    }
}
