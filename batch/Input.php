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

    /** @throws UnusableInput */
    public static function contents(string $path): string
    {
        $stream = self::open($path);
        $contents = @stream_get_contents($stream);

        return false !== $contents ? $contents : throw new UnusableInput($path, 'cannot be read');
    }
}
