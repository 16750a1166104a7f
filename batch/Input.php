<?php

declare(strict_types=1);

namespace Batch;

use Mensura\Fault\UnusableInput;

/** Input files of the verbs: paths of files and pipes, and - for standard input. */
final class Input
{
    /**
     * @return resource
     *
     * @throws UnusableInput
     */
    public static function open(string $path)
    {
        if ('-' === $path) {
            return \STDIN;
        }
        // PHP takes such a path for a link to a file; it is the shell's name for a pipe that is open already.
        $open = 1 === preg_match('#^/(?:dev|proc/self)/(?:fd/(\d+)|stdin)$#', $path, $found) ? 'php://fd/'.($found[1] ?? '0') : $path;
        $stream = is_dir($path) ? false : @fopen($open, 'r');

        return false !== $stream ? $stream : throw new UnusableInput($path, 'cannot be read; is the path right?');
    }

    /**
     * A path that can be opened again and again: of a pipe, that of a copy which lives as long as the program.
     *
     * @throws UnusableInput
     */
    public static function path(string $path): string
    {
        if (is_file($path)) {
            return $path;
        }
        $copy = tempnam(sys_get_temp_dir(), 'mensura');
        $to = false === $copy ? false : fopen($copy, 'w');
        if (false === $copy || false === $to) {
            throw new UnusableInput($path, 'cannot be copied: no temporary file can be written');
        }
        register_shutdown_function(static fn () => @unlink($copy));
        stream_copy_to_stream(self::open($path), $to);
        fclose($to);

        return $copy;
    }

    /** @throws UnusableInput */
    public static function contents(string $path): string
    {
        $stream = self::open($path);
        $contents = @stream_get_contents($stream);

        return false !== $contents ? $contents : throw new UnusableInput($path, 'cannot be read');
    }
}
