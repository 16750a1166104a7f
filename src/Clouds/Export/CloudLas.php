<?php

declare(strict_types=1);

namespace App\Clouds\Export;

use App\Project\Project;
use Mensura\Exchange\Cloud\CloudOut;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Exchange\Cloud\LasOut;
use Mensura\Exchange\Features\Write\LasWriter;

final readonly class CloudLas extends CloudFile
{
    protected static function format(): array
    {
        return ['las', 'application/vnd.las', 'LAS', 26];
    }

    protected function out(Project $project, CloudReader $cloud, string $path): CloudOut
    {
        $system = LasWriter::system($this->references->of($project)?->code, false);

        return LasOut::of($path, [$cloud], false, $system);
    }

    protected static function lost(): array
    {
        return [];
    }
}
