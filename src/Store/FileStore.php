<?php

declare(strict_types=1);

namespace App\Store;

use League\Flysystem\Filesystem;
use League\Flysystem\FilesystemException;
use League\Flysystem\Local\LocalFilesystemAdapter;

/**
 * Bytes by the SHA-256 of their contents. What is in the store never changes; the database says what it means.
 *
 * A file is written aside, compared with its hash, brought to the disk and only then given its name, so that a machine
 * or a disk that gives out leaves either the whole file or none. What is read is compared with its hash again.
 */
final class FileStore
{
    /** Bytes a stored result may inflate to: the adjustment of the largest network is a tenth of it. */
    private const MOST_INFLATED = 536_870_912;
    private const ASIDE = 'incoming';

    private readonly Filesystem $files;

    /** @var array<string, true> files compared with their hash already; they never change */
    private array $verified = [];

    public function __construct(private readonly string $folder)
    {
        $this->files = new Filesystem(new LocalFilesystemAdapter($folder));
    }

    /** @throws StoreFault when the disk does not take it; nothing is kept then */
    public function put(string $bytes): string
    {
        $hash = hash('sha256', $bytes);
        if (!$this->holds($hash)) {
            $aside = $this->aside();
            try {
                $this->files->write($aside, $bytes);
            } catch (FilesystemException $e) {
                throw StoreFault::full($e);
            }
            $this->name($aside, $hash);
        }

        return $hash;
    }

    /**
     * Takes a file that was written outside; it is gone from its place afterwards.
     *
     * @throws StoreFault
     */
    public function take(string $path): string
    {
        $hash = (string) hash_file('sha256', $path);
        if ($this->holds($hash)) {
            unlink($path);

            return $hash;
        }
        $aside = $this->aside();
        $stream = fopen($path, 'r');
        if (false === $stream) {
            throw StoreFault::full(null);
        }
        try {
            $this->files->writeStream($aside, $stream);
        } catch (FilesystemException $e) {
            throw StoreFault::full($e);
        } finally {
            fclose($stream);
        }
        $this->name($aside, $hash);
        unlink($path);

        return $hash;
    }

    /** @throws StoreFault when it is not there or is not what its name says */
    public function get(string $hash): string
    {
        try {
            $bytes = $this->files->read(self::path($hash));
        } catch (FilesystemException $e) {
            throw StoreFault::lost($hash, $e);
        }
        if (!isset($this->verified[$hash])) {
            if (hash('sha256', $bytes) !== $hash) {
                throw StoreFault::damaged($hash);
            }
            $this->verified[$hash] = true;
        }

        return $bytes;
    }

    /**
     * Path of a stored file, for readers that work on files.
     *
     * @throws StoreFault
     */
    public function localPath(string $hash): string
    {
        $path = $this->folder.'/'.self::path($hash);
        if (!isset($this->verified[$hash])) {
            if (!is_file($path)) {
                throw StoreFault::lost($hash, null);
            }
            if (!$this->holds($hash)) {
                throw StoreFault::damaged($hash);
            }
        }

        return $path;
    }

    /**
     * Path of a stored file that checks its parts itself, as an archive does: large ones are not read through for every part of them.
     *
     * @throws StoreFault
     */
    public function pathOfParts(string $hash): string
    {
        $path = $this->folder.'/'.self::path($hash);

        return is_file($path) ? $path : throw StoreFault::lost($hash, null);
    }

    public function size(string $hash): int
    {
        return (int) filesize($this->localPath($hash));
    }

    /** @param array<mixed> $value */
    public function putJson(array $value): string
    {
        return $this->put(self::json($value));
    }

    /**
     * The bytes JSON is kept as.
     *
     * @param array<mixed> $value
     */
    public static function json(array $value): string
    {
        return (string) gzencode(json_encode($value, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION), 4);
    }

    /** @return array<mixed> */
    public function getJson(string $hash): array
    {
        return json_decode((string) gzdecode($this->get($hash), self::MOST_INFLATED), true, 64, \JSON_THROW_ON_ERROR);
    }

    /** Whether there is such a file, whole or not. */
    public function has(string $hash): bool
    {
        return is_file($this->folder.'/'.self::path($hash));
    }

    /** Whether the whole file is there; one that was cut short is as good as none. */
    private function holds(string $hash): bool
    {
        if (isset($this->verified[$hash])) {
            return true;
        }
        $path = $this->folder.'/'.self::path($hash);
        if (!is_file($path) || hash_file('sha256', $path) !== $hash) {
            return false;
        }

        return $this->verified[$hash] = true;
    }

    private function aside(): string
    {
        return self::ASIDE.'/'.bin2hex(random_bytes(12));
    }

    private function name(string $aside, string $hash): void
    {
        $local = $this->folder.'/'.$aside;
        // What stands on the disk counts, not what was meant to: a full disk may have taken a part without a word.
        $stream = fopen($local, 'r+');
        $whole = false !== $stream && fsync($stream) && hash_file('sha256', $local) === $hash;
        if (false !== $stream) {
            fclose($stream);
        }
        if (!$whole) {
            @unlink($local);
            throw StoreFault::full(null);
        }
        try {
            $this->files->move($aside, self::path($hash));
        } catch (FilesystemException $e) {
            throw StoreFault::full($e);
        }
        $this->verified[$hash] = true;
    }

    private static function path(string $hash): string
    {
        if (1 !== preg_match('/^[0-9a-f]{64}$/', $hash)) {
            throw new \InvalidArgumentException('Not a content hash.');
        }

        return substr($hash, 0, 2).'/'.substr($hash, 2, 2).'/'.$hash;
    }
}
