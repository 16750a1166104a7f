<?php

declare(strict_types=1);

namespace App\Transfer;

use Mensura\Fault\UnusableInput;

/** Where the entries of an archive go: into a zip, or nowhere when only their hashes are asked for. */
final class ArchiveSink
{
    /** @var array<string, array{sha256: string, bytes: int}> by path */
    private array $entries = [];

    /** @var list<string> temporary files, needed until the zip is closed */
    private array $aside = [];

    private function __construct(private readonly ?\ZipArchive $zip)
    {
    }

    public function __destruct()
    {
        array_map(unlink(...), $this->aside);
    }

    public static function hashes(): self
    {
        return new self(null);
    }

    public static function zip(string $path): self
    {
        $zip = new \ZipArchive();
        if (true !== $zip->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE)) {
            throw new UnusableInput('', 'the archive cannot be written; is the disk of the server full?');
        }

        return new self($zip);
    }

    /** @param iterable<string> $lines each with its line end */
    public function lines(string $path, iterable $lines): string
    {
        $aside = $this->aside[] = (string) tempnam(sys_get_temp_dir(), 'archive');
        $file = fopen($aside, 'w') ?: throw new \RuntimeException('No temporary file can be written.');
        $hash = hash_init('sha256');
        $bytes = 0;
        foreach ($lines as $line) {
            hash_update($hash, $line);
            $bytes += \strlen($line);
            if (null !== $this->zip && \strlen($line) !== fwrite($file, $line)) {
                throw new UnusableInput('', 'the disk of the server does not take the archive; free some space, then try again');
            }
        }
        fclose($file);
        $this->entries[$path] = ['sha256' => hash_final($hash), 'bytes' => $bytes];
        $this->zip?->addFile($aside, $path);

        return $this->entries[$path]['sha256'];
    }

    public function bytes(string $path, string $bytes): void
    {
        $this->entries[$path] = ['sha256' => hash('sha256', $bytes), 'bytes' => \strlen($bytes)];
        $this->zip?->addFromString($path, $bytes);
        $this->zip?->setCompressionName($path, \ZipArchive::CM_STORE);
    }

    /** @param string $hash of its contents, known to the store */
    public function file(string $path, string $from, string $hash): void
    {
        $this->entries[$path] = ['sha256' => $hash, 'bytes' => (int) filesize($from)];
        if (null !== $this->zip) {
            $this->zip->addFile($from, $path);
            if (\in_array(file_get_contents($from, false, null, 0, 2), ["\x1f\x8b", 'PK'], true)) {
                $this->zip->setCompressionName($path, \ZipArchive::CM_STORE);
            }
        }
    }

    /** @return array<string, array{sha256: string, bytes: int}> by path, in the order of the paths */
    public function entries(): array
    {
        ksort($this->entries, \SORT_STRING);

        return $this->entries;
    }

    /** @param array<string, mixed> $manifest */
    public function close(array $manifest): void
    {
        $text = json_encode($manifest, \JSON_PRETTY_PRINT | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE | \JSON_THROW_ON_ERROR);
        $this->zip?->addFromString(ArchiveWriter::MANIFEST, $text."\n");
        if (false === $this->zip?->close()) {
            throw new UnusableInput('', 'the disk of the server does not take the archive; free some space, then try again');
        }
    }
}
