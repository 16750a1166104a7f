<?php

declare(strict_types=1);

namespace Mensura\Exchange\Cloud;

use Mensura\Cloud\PointBlock;
use Mensura\Exchange\Features\Write\E57Writer;

/** E57, all points as one scan. The format wants its sections whole, so they are held until the end. */
final class E57Out implements CloudOut
{
    private readonly PointBlock $all;

    public function __construct(private readonly string $path, private readonly ?string $crs)
    {
        $this->all = new PointBlock();
    }

    public function write(PointBlock $points): void
    {
        $this->all->add(new PointBlock($points->x, $points->y, $points->z));
    }

    public function finish(): void
    {
        E57Writer::file($this->path, ['cloud' => [$this->all->x, $this->all->y, $this->all->z]], $this->crs);
    }
}
