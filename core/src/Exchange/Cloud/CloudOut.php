<?php

declare(strict_types=1);

namespace Mensura\Exchange\Cloud;

use Mensura\Cloud\PointBlock;
use Mensura\Fault\UnusableInput;

/** A file of points that is written as they come. */
interface CloudOut
{
    /** @throws UnusableInput when the disk does not take it */
    public function write(PointBlock $points): void;

    /** The last of them is written; the file is whole. */
    public function finish(): void;
}
