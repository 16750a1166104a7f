<?php

declare(strict_types=1);

namespace App\Ledger;

/**
 * What one operation changed: images of rows before and after, which is all that undo needs. They come from the unit of
 * work ({@see UnitOfWorkImages}) and from the bulk methods of repositories, and go to a file at once, a few at a time, so
 * that a change of a million rows holds no more of them than a change of one.
 */
final class Journal
{
    /** Rows put into one line of the file. */
    public const ROWS_PER_LINE = 500;

    private int $count = 0;

    private readonly string $path;

    /** @var resource */
    private $file;

    public function __construct(public readonly int $seq, public readonly string $authorName, public readonly \DateTimeImmutable $at)
    {
        $this->path = (string) tempnam(sys_get_temp_dir(), 'journal');
        $this->file = gzopen($this->path, 'wb3') ?: throw new \RuntimeException('No temporary file can be written.');
    }

    public function __destruct()
    {
        $this->close();
        @unlink($this->path);
    }

    public function record(Images $images): void
    {
        foreach (array_chunk($images->rows, self::ROWS_PER_LINE) as $rows) {
            gzwrite($this->file, (new Images($images->table, $images->columns, $rows))->toLine());
            $this->count += \count($rows);
        }
    }

    /** Rows changed so far. */
    public function count(): int
    {
        return $this->count;
    }

    /** Path of the finished file; the journal takes no more. */
    public function finish(): string
    {
        $this->close();

        return $this->path;
    }

    private function close(): void
    {
        if (\is_resource($this->file)) {
            gzclose($this->file);
        }
    }
}
