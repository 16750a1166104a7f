<?php

declare(strict_types=1);

namespace App\Clouds\Export;

use App\Project\Project;
use Mensura\Exchange\Cloud\CloudOut;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Exchange\Cloud\E57Out;

final readonly class CloudE57 extends CloudFile
{
    protected static function format(): array
    {
        return ['e57', 'model/e57', 'E57', 27];
    }

    protected function out(Project $project, CloudReader $cloud, string $path): CloudOut
    {
        return new E57Out($path, $this->references->of($project)?->code);
    }

    protected static function lost(): array
    {
        return ['classes, intensities and colours'];
    }
}
