<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rinex;

use Mensura\Fault\UnusableInput;

/** Files packed by gzip (RFC 1952), as receivers and services hand them out. */
final class Packed
{
    private const MAGIC = "\x1f\x8b";

    /** Bytes a file may unpack to: a day at one second with every signal is a third of it. */
    private const MOST = 1_000_000_000;

    private const HEAD = 200;

    /** @throws UnusableInput when what is packed is damaged or far too large */
    public static function contents(string $bytes, string $name): string
    {
        if (!str_starts_with($bytes, self::MAGIC)) {
            return $bytes;
        }
        $plain = @gzdecode($bytes, self::MOST);

        return false === $plain ? throw new UnusableInput($name, 'is packed by gzip, but damaged or too large; pack it again') : $plain;
    }

    /** The first bytes of what a file holds, packed or not. */
    public static function head(string $path): string
    {
        $stream = @gzopen($path, 'rb'); // reads what is not packed as it is
        if (false === $stream) {
            return '';
        }
        $head = (string) gzread($stream, self::HEAD);
        gzclose($stream);

        return $head;
    }
}
