<?php

declare(strict_types=1);

namespace App\Clouds\Export;

use App\Project\Project;
use Mensura\Exchange\Cloud\CloudOut;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Exchange\Cloud\PlyOut;

final readonly class CloudPly extends CloudFile
{
    protected static function format(): array
    {
        return ['ply', 'application/octet-stream', 'PLY', 28];
    }

    protected function out(Project $project, CloudReader $cloud, string $path): CloudOut
    {
        return new PlyOut($path);
    }

    protected static function lost(): array
    {
        return ['classes, intensities and colours', 'the coordinate system'];
    }
}
