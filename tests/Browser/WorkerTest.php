<?php

declare(strict_types=1);

namespace App\Tests\Browser;

use PHPUnit\Framework\TestCase;

/** The supervised worker as a process: killed with -9 in the middle of a job, the job is taken up again and nothing is doubled. */
final class WorkerTest extends TestCase
{
    private Office $office;
    private \PDO $database;

    protected function setUp(): void
    {
        $this->office = new Office(browser: false);
        $this->database = new \PDO('sqlite:'.$this->office->folder.'/mensura.db');
        $this->database->exec('PRAGMA busy_timeout = 10000');
    }

    protected function tearDown(): void
    {
        $this->office->close();
    }

    public function testAKilledWorkerLosesAndDoublesNothing(): void
    {
        $this->manyPoints();
        $entries = $this->rowsOf('ledger_entry');
        $results = $this->rowsOf('result');
        $job = $this->queue('surface', ['surface' => 12]);
        $this->office->startWorker();
        $process = $this->office->await(function () use ($job): ?int {
            $row = $this->job($job);

            return 'running' === $row['state']
                && '' !== $row['stage'] ? (int) substr((string) strrchr((string) $row['worker'], ':'), 1) : null;
        }, 'a running job', 30);
        self::assertTrue(posix_kill($process, \SIGKILL));
        $done = $this->office->await(function () use ($job): ?array {
            $row = $this->job($job);

            return \in_array($row['state'], ['done', 'failed'], true) ? $row : null;
        }, 'the job to be taken up again', 60);
        self::assertSame('done', $done['state'], (string) $done['error']);
        self::assertSame(2, (int) $done['attempts']);
        self::assertSame($entries + 1, $this->rowsOf('ledger_entry'));
        self::assertSame($results + 1, $this->rowsOf('result'));
    }

    public function testACancelledJobStopsAndLeavesNothing(): void
    {
        $this->manyPoints();
        $results = $this->rowsOf('result');
        $job = $this->queue('surface', ['surface' => 12]);
        $this->office->startWorker();
        $this->office->await(fn (): ?bool => 'running' === $this->job($job)['state'] ? true : null, 'a running job', 30);
        $this->database->exec("UPDATE job SET cancel_requested = 1 WHERE id = '$job'");
        $this->office->await(fn (): ?bool => 'cancelled' === $this->job($job)['state'] ? true : null, 'the job to stop', 30);
        self::assertSame($results, $this->rowsOf('result'));
    }

    /** A surface that takes a worker a few seconds. */
    private function manyPoints(): void
    {
        mt_srand(11);
        $this->database->exec('BEGIN IMMEDIATE');
        $insert = $this->database->prepare(
            "INSERT INTO point (project_id, name, role, source, code, e, n, h, held) VALUES (1, ?, 'surveyed', 'file', "
                ."'MANY', ?, ?, ?, '')",
        );
        for ($i = 0; $i < 120000; ++$i) {
            $insert->execute([
                "M$i", 494000 + mt_rand(0, 2000000) / 1000, 6030000 + mt_rand(0, 2000000) / 1000,
                200 + mt_rand(0, 9000) / 1000,
            ]);
        }
        $this->database->exec(
            "INSERT INTO surface (id, project_id, name, definition) VALUES (12, 1, 'Many', "
                ."'{\"roles\":[\"surveyed\"],\"codes\":[\"MANY\"],\"exclude\":[],\"lines\":[],\"maxEdge\":null,\"interval\":1.0}')",
        );
        $this->database->exec('COMMIT');
    }

    /** @param array<string, mixed> $payload */
    private function queue(string $kind, array $payload): string
    {
        $id = bin2hex(random_bytes(16));
        $this->database->prepare(
            'INSERT INTO job (id, project_id, author_id, kind, title, payload, state, created_at) VALUES (?, 1, 1, ?, '
                ."'test', ?, 'running', '2031-05-04 09:00:00')",
        )->execute([$id, $kind, json_encode($payload, \JSON_THROW_ON_ERROR)]);
        // As a job whose worker is gone: the supervisor takes it up when it starts.
        $this->database->prepare('UPDATE job SET worker = ? WHERE id = ?')->execute([gethostname().':999999', $id]);

        return $id;
    }

    /** @return array<string, mixed> */
    private function job(string $id): array
    {
        $statement = $this->database->prepare('SELECT * FROM job WHERE id = ?');
        $statement->execute([$id]);

        return $statement->fetch(\PDO::FETCH_ASSOC) ?: [];
    }

    private function rowsOf(string $table): int
    {
        $statement = $this->database->query("SELECT COUNT(*) FROM $table");
        self::assertNotFalse($statement);

        return (int) $statement->fetchColumn();
    }
}
