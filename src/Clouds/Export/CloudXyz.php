<?php

declare(strict_types=1);

namespace App\Clouds\Export;

use App\Project\Project;
use Mensura\Exchange\Cloud\CloudOut;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Exchange\Cloud\XyzOut;

final readonly class CloudXyz extends CloudFile
{
    protected static function format(): array
    {
        return ['xyz', 'text/plain; charset=us-ascii', 'lines of coordinates', 29];
    }

    protected function out(Project $project, CloudReader $cloud, string $path): CloudOut
    {
        return new XyzOut($path, false);
    }

    protected static function lost(): array
    {
        return ['classes, intensities and colours', 'the coordinate system'];
    }
}
