<?php

declare(strict_types=1);

namespace App\Transfer;

use Mensura\Fault\UnusableInput;

/** An archive as it lies on the disk: its manifest, and its entries, each held against its hash before anything is made of it. */
final class ProjectArchive
{
    private const MOST_ENTRIES = 200_000;
    private const LONGEST_MANIFEST = 67_108_864;
    private const LONGEST_LINE = 268_435_456;
    private const NAMES = '#^(tables/[a-z_]{1,40}\.jsonl|ledger/[0-9]{1,9}\.jsonl|files/[0-9a-f]{64})$#';

    /** @param array<string, mixed> $manifest */
    private function __construct(private readonly \ZipArchive $zip, public readonly array $manifest)
    {
    }

    /** @throws UnusableInput when it is none, or not whole */
    public static function open(string $path): self
    {
        $zip = new \ZipArchive();
        if (true !== $zip->open($path, \ZipArchive::RDONLY)) {
            throw new UnusableInput('', 'this is not a zip; choose the archive of a project as it was written');
        }
        $stat = $zip->statName(ArchiveWriter::MANIFEST);
        if (false === $stat || $stat['size'] > self::LONGEST_MANIFEST) {
            throw new UnusableInput('', 'the zip has no archive.json; it is not the archive of a project');
        }
        $manifest = json_decode((string) $zip->getFromName(ArchiveWriter::MANIFEST), true, 16);
        if (!\is_array($manifest) || ArchiveWriter::FORMAT !== ($manifest['format'] ?? null)) {
            throw new UnusableInput('archive.json', 'is not of the format '.ArchiveWriter::FORMAT);
        }
        foreach (['project', 'people', 'rows', 'numbers', 'entries'] as $key) {
            if (!\is_array($manifest[$key] ?? null)) {
                throw new UnusableInput('archive.json', "has no \"$key\"");
            }
        }
        $archive = new self($zip, $manifest);
        $archive->compare();

        return $archive;
    }

    public function name(): string
    {
        $name = $this->manifest['project']['name'] ?? '';

        return \is_string($name) && '' !== trim($name) ? mb_substr(trim($name), 0, 200) : 'Project without a name';
    }

    /** @return list<string> */
    public function people(): array
    {
        return array_values(array_filter($this->manifest['people'], is_string(...)));
    }

    /** The highest number of a table. */
    public function highest(string $table): int
    {
        return (int) ($this->manifest['numbers'][$table] ?? 0);
    }

    public function has(string $path): bool
    {
        return isset($this->manifest['entries'][$path]);
    }

    /** @return array<string, array{sha256: string, bytes: int}> */
    public function entries(): array
    {
        return $this->manifest['entries'];
    }

    /**
     * @return \Generator<int, list<mixed>> by the number of the line, from 1
     *
     * @throws UnusableInput
     */
    public function lines(string $path): \Generator
    {
        $stream = $this->stream($path);
        try {
            for ($i = 1; false !== $line = fgets($stream, self::LONGEST_LINE); ++$i) {
                $values = json_decode($line, true, 64);
                if (!\is_array($values) || !array_is_list($values)) {
                    throw new UnusableInput($path, "line $i is not a list");
                }
                yield $i => $values;
            }
        } finally {
            fclose($stream);
        }
    }

    /** A file of the archive, on the disk; the caller removes it. */
    public function extracted(string $path): string
    {
        $aside = (string) tempnam(sys_get_temp_dir(), 'archive');
        $stream = $this->stream($path);
        $copied = file_put_contents($aside, $stream);
        fclose($stream);
        if ($copied !== $this->manifest['entries'][$path]['bytes']) {
            unlink($aside);
            throw new UnusableInput($path, 'cannot be unpacked; is the disk of the server full?');
        }

        return $aside;
    }

    /** Every entry against its hash, none more and none less. Nothing is unpacked beyond the length it says. */
    private function compare(): void
    {
        $entries = $this->manifest['entries'];
        if (\count($entries) > self::MOST_ENTRIES || $this->zip->numFiles !== \count($entries) + 1) {
            throw new UnusableInput('archive.json', \sprintf(
                'lists %d entries, the zip has %d beside it; the archive is not whole', \count($entries), $this->zip->numFiles - 1,
            ));
        }
        $free = (float) disk_free_space(sys_get_temp_dir());
        $bytes = 0.0;
        foreach ($entries as $path => $entry) {
            $size = $entry['bytes'] ?? null;
            if (1 !== preg_match(self::NAMES, (string) $path) || !\is_int($size) || $size < 0 || !\is_string($entry['sha256'] ?? null)) {
                throw new UnusableInput('archive.json', 'lists an entry that no archive has: '.mb_substr((string) $path, 0, 80));
            }
            if (($bytes += $size) > $free) {
                throw new UnusableInput('', 'unpacked it is larger than the free space of the server');
            }
        }
        foreach ($entries as $path => $entry) {
            $stream = $this->stream((string) $path);
            $hash = hash_init('sha256');
            $read = hash_update_stream($hash, $stream, $entry['bytes']);
            $isOver = '' === (string) fread($stream, 1);
            fclose($stream);
            if ($read !== $entry['bytes'] || !$isOver || hash_final($hash) !== $entry['sha256']) {
                $reason = 'is not what archive.json says: the archive was damaged or changed; take another copy';
                throw new UnusableInput((string) $path, $reason);
            }
        }
    }

    /** @return resource */
    private function stream(string $path)
    {
        $stream = $this->has($path) ? $this->zip->getStream($path) : false;

        return false === $stream ? throw new UnusableInput($path, 'is missing; the archive is not whole') : $stream;
    }
}
