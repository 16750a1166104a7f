<?php

declare(strict_types=1);

namespace Batch;

use Mensura\Fault\UnusableInput;

/** Output files of the verbs: complete or not at all. */
final class Output
{
    /**
     * @param \Closure(resource): void $write
     *
     * @throws UnusableInput
     */
    public static function whole(string $path, \Closure $write): void
    {
        $part = $path.'.part';
        $stream = @fopen($part, 'w');
        if (false === $stream) {
            throw new UnusableInput($path, 'cannot be written');
        }
        $write($stream);
        if (!fclose($stream) || !@rename($part, $path)) {
            @unlink($part);
            throw new UnusableInput($path, 'cannot be written');
        }
    }
}
