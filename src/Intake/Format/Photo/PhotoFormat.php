<?php

declare(strict_types=1);

namespace App\Intake\Format\Photo;

use App\Intake\Format\FileFormat;
use App\Intake\Format\Reading;
use App\Intake\Format\SaysFrame;
use App\Survey\SurveyFile;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Photo\PhotoExif;

/** Photos: JPEG images with what their tags say. */
final class PhotoFormat implements FileFormat, SaysFrame
{
    public function recognises(string $path, string $name): float
    {
        return PhotoExif::isJpeg((string) file_get_contents($path, length: 4)) ? 1.0 : 0.0;
    }

    public function kindOf(string $path): string
    {
        return FileKind::Photo->value;
    }

    public function read(string $path, SurveyFile $file): Reading
    {
        return new PhotoReading(PhotoExif::read($path, $file->name()), $file->name());
    }

    public function understand(string $path, array $answers): array
    {
        return [FileKind::Photo->value, []];
    }

    public function shape(string $path): string
    {
        return '';
    }

    public function frame(string $path): string
    {
        return 'EPSG:4326';
    }
}
