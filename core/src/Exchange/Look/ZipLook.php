<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Fault\UnusableInput;

/** A zip with a shapefile in it, looked into without writing what it holds. */
final class ZipLook
{
    private const MOST_FILES = 10_000;
    /** Unpacked bytes of one file. */
    private const LARGEST = 400_000_000;
    /** Bytes kept in memory; the rest goes to a temporary file of the system's own, which nobody sees. */
    private const IN_MEMORY = 64 << 20;
    /** A large file that shrinks to less than this part of itself is no data. */
    private const BOMB = 200;
    private const LARGE = 10_000_000;

    /** @param ?\Closure(string, resource, \Closure(string): ?string): void $each is given every shapefile, and what belongs to it */
    public static function read(Looked $l, string $path, Systems $systems, string $name, ?\Closure $each = null): void
    {
        $zip = new \ZipArchive();
        if (true !== $zip->open($path, \ZipArchive::RDONLY)) {
            throw new UnusableInput($name, 'is a zip that cannot be opened: it is cut off or damaged');
        }
        if ($zip->numFiles > self::MOST_FILES) {
            throw new UnusableInput($name, \sprintf('holds %d files; at most %d are looked through', $zip->numFiles, self::MOST_FILES));
        }
        $shapes = [];
        for ($i = 0; $i < $zip->numFiles; ++$i) {
            $stat = $zip->statIndex($i);
            if (\is_array($stat) && 1 === preg_match('/\.shp$/i', $stat['name']) && !str_contains($stat['name'], '__MACOSX')) {
                $shapes[] = $stat['name'];
            }
        }
        if ([] === $shapes) {
            $l->kind = 'unknown';

            return;
        }
        $l->kind = 'shapefile';
        foreach ($shapes as $shape) {
            $stem = substr($shape, 0, -4);
            $companion = static function (string $ending) use ($zip, $stem, $name): ?string {
                foreach ([$ending, strtoupper($ending)] as $e) {
                    if (false !== $zip->locateName("$stem.$e")) {
                        $stream = self::member($zip, "$stem.$e", $name);

                        return (string) stream_get_contents($stream, 64 << 20);
                    }
                }

                return null;
            };
            $stream = self::member($zip, $shape, $name);
            $size = (int) (fstat($stream)['size'] ?? 0);
            ShapefileLook::read($l, $stream, $size, basename($stem), $companion, $systems, $name.' '.$shape);
            if (null !== $each) {
                rewind($stream);
                $each(basename($stem), $stream, $companion);
            }
        }
        $zip->close();
    }

    /** @return resource at its begin */
    private static function member(\ZipArchive $zip, string $member, string $name)
    {
        $stat = $zip->statName($member);
        $isBomb = \is_array($stat) && $stat['size'] > self::LARGE && $stat['size'] > self::BOMB * $stat['comp_size'];
        if (!\is_array($stat) || $stat['size'] > self::LARGEST || $isBomb) {
            throw new UnusableInput($name, \sprintf('"%s" is too large unpacked; nothing of it is read', mb_scrub($member)));
        }
        $from = $zip->getStream($member);
        $to = fopen('php://temp/maxmemory:'.self::IN_MEMORY, 'w+');
        if (false === $from || false === $to) {
            throw new UnusableInput($name, \sprintf('"%s" cannot be unpacked', mb_scrub($member)));
        }
        $copied = @stream_copy_to_stream($from, $to, self::LARGEST + 1);
        if ($copied !== $stat['size']) {
            $words = '"%s" is damaged: it unpacks to %d bytes of %d';
            throw new UnusableInput($name, \sprintf($words, mb_scrub($member), (int) $copied, $stat['size']));
        }
        rewind($to);

        return $to;
    }
}
