<?php

declare(strict_types=1);

namespace Batch\Cloud;

use Mensura\Exchange\Cloud\CloudOut;

/** A file that goes to its place when it is whole, and not before. */
final class Written
{
    public readonly CloudOut $out;

    private readonly string $aside;

    /** @param \Closure(string): CloudOut $open */
    public function __construct(private readonly string $path, \Closure $open)
    {
        $this->aside = \dirname($path).'/.cloud-'.bin2hex(random_bytes(6)).'.'.pathinfo($path, \PATHINFO_EXTENSION);
        $this->out = $open($this->aside);
    }

    public function finish(): void
    {
        $this->out->finish();
        rename($this->aside, $this->path);
    }

    public function clear(): void
    {
        if (is_file($this->aside)) {
            unlink($this->aside);
        }
    }
}
