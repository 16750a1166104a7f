<?php

declare(strict_types=1);

namespace Mensura\Exchange\Las;

use Mensura\Fault\UnusableInput;

/** LAZ files, unpacked to LAS beside PHP: by Node and the laz-perf package of the front end. */
final class LazFile
{
    private const MODULES = __DIR__.'/../../../../frontend/node_modules';

    /**
     * Unpacks a file into a temporary one, which lives as long as the program.
     *
     * @param string $name for messages
     *
     * @return string path of the LAS file
     *
     * @throws UnusableInput where Node or the package is missing, or the file is no LAZ file
     */
    public static function unpacked(string $path, string $name): string
    {
        if (!is_dir(self::MODULES.'/laz-perf')) {
            throw new UnusableInput($name, 'is packed as LAZ; unpacking needs the laz-perf package: run bin/mensura setup, or bring LAS');
        }
        $to = (string) tempnam(sys_get_temp_dir(), 'las');
        register_shutdown_function(static fn () => @unlink($to));
        $process = @proc_open(
            ['node', __DIR__.'/unpack.mjs', (string) realpath(self::MODULES), $path, $to], [1 => ['pipe', 'w'], 2 => ['pipe', 'w']], $pipes,
        );
        if (!\is_resource($process)) {
            throw new UnusableInput($name, 'is packed as LAZ; unpacking needs Node, which is not installed: install it, or bring LAS');
        }
        stream_get_contents($pipes[1]);
        $said = (string) stream_get_contents($pipes[2]);
        $exit = proc_close($process);
        if (127 === $exit) {
            throw new UnusableInput($name, 'is packed as LAZ; unpacking needs Node, which is not installed: install it, or bring LAS');
        }
        if (0 !== $exit) {
            $why = 1 === preg_match('/^(?:\w*Error|RuntimeError): (.+)$/m', $said, $m) ? ' ('.$m[1].')' : '';
            throw new UnusableInput($name, 'cannot be unpacked: it is cut off, or no LAZ file'.$why);
        }

        return $to;
    }
}
