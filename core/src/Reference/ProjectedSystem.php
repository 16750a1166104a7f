<?php

declare(strict_types=1);

namespace Mensura\Reference;

use Mensura\Geodesy\Ellipsoid;

/** A projected coordinate reference system in metres. */
final readonly class ProjectedSystem
{
    public function __construct(
        public string $code,
        public string $name,
        public string $datum,
        public Ellipsoid $ellipsoid,
        public Projection $projection,
    ) {
    }
}
