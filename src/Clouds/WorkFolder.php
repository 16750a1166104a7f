<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Store\StoreFault;

/** A folder for files that are being made; gone with what is left in it. */
final readonly class WorkFolder
{
    private function __construct(public string $path)
    {
    }

    /** @throws StoreFault when the disk does not take it */
    public static function make(): self
    {
        $path = sys_get_temp_dir().'/mensura-work-'.bin2hex(random_bytes(8));

        return @mkdir($path, 0o700) ? new self($path) : throw StoreFault::full(null);
    }

    public function clear(): void
    {
        $files = new \RecursiveIteratorIterator(
            new \RecursiveDirectoryIterator($this->path, \FilesystemIterator::SKIP_DOTS), \RecursiveIteratorIterator::CHILD_FIRST,
        );
        foreach ($files as $file) {
            \assert($file instanceof \SplFileInfo);
            $file->isDir() ? rmdir($file->getPathname()) : unlink($file->getPathname());
        }
        rmdir($this->path);
    }
}
