<?php

declare(strict_types=1);

namespace App\Store;

use League\Flysystem\Filesystem;
use League\Flysystem\Local\LocalFilesystemAdapter;

/** Bytes by the SHA-256 of their contents. What is in the store never changes; the database says what it means. */
final class FileStore
{
    /** Bytes a stored result may inflate to: the adjustment of the largest network is a tenth of it. */
    private const MOST_INFLATED = 536_870_912;

    private readonly Filesystem $files;

    public function __construct(private readonly string $folder)
    {
        $this->files = new Filesystem(new LocalFilesystemAdapter($folder));
    }

    public function put(string $bytes): string
    {
        $hash = hash('sha256', $bytes);
        if (!$this->files->fileExists(self::path($hash))) {
            $this->files->write(self::path($hash), $bytes);
        }

        return $hash;
    }

    public function get(string $hash): string
    {
        return $this->files->read(self::path($hash));
    }

    /** Path of a stored file, for readers that work on files. */
    public function localPath(string $hash): string
    {
        return $this->folder.'/'.self::path($hash);
    }

    /** @param array<mixed> $value */
    public function putJson(array $value): string
    {
        return $this->put((string) gzencode(json_encode($value, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION), 4));
    }

    /** @return array<mixed> */
    public function getJson(string $hash): array
    {
        return json_decode((string) gzdecode($this->get($hash), self::MOST_INFLATED), true, 64, \JSON_THROW_ON_ERROR);
    }

    private static function path(string $hash): string
    {
        if (1 !== preg_match('/^[0-9a-f]{64}$/', $hash)) {
            throw new \InvalidArgumentException('Not a content hash.');
        }

        return substr($hash, 0, 2).'/'.substr($hash, 2, 2).'/'.$hash;
    }
}
