<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Store\StoreFault;

/** A folder of tiles as one file, and tiles out of it; each is held against its checksum. */
final readonly class TileArchive
{
    /** The earliest a zip can say: the same tiles are the same bytes, whenever they were made. */
    private const TIME = 315_532_800;

    /** @throws StoreFault when the disk does not take it */
    public static function pack(string $folder, string $path): string
    {
        $zip = new \ZipArchive();
        $names = array_values(array_filter(scandir($folder) ?: [], static fn (string $n): bool => '.' !== $n[0]));
        natsort($names);
        $isWritten = true === $zip->open($path, \ZipArchive::CREATE | \ZipArchive::EXCL);
        foreach ($names as $name) {
            $isWritten = $isWritten && $zip->addFile("$folder/$name", $name) && $zip->setMtimeName($name, self::TIME)
                && $zip->setCompressionName($name, str_ends_with($name, '.json') ? \ZipArchive::CM_DEFLATE : \ZipArchive::CM_STORE);
        }

        return $isWritten && $zip->close() ? $path : throw StoreFault::full(null);
    }

    /** One of its files; null where there is no such file. */
    public static function file(string $path, string $name): ?string
    {
        $zip = new \ZipArchive();
        if (true !== $zip->open($path, \ZipArchive::RDONLY)) {
            return null;
        }
        $bytes = $zip->getFromName($name);
        $zip->close();

        return false === $bytes ? null : $bytes;
    }
}
