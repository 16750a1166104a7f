<?php

declare(strict_types=1);

namespace App\Intake\Format\Faces;

use App\Intake\Format\FileFormat;
use App\Intake\Format\Reading;
use App\Survey\SurveyFile;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Faces\FaceFile;
use Mensura\Fault\UnusableInput;

/** Faces that others drew: DXF, PLY, and LandXML that holds a surface and nothing that was surveyed. */
final class FacesFormat implements FileFormat
{
    private const HEAD = 4096;

    public function recognises(string $path, string $name): float
    {
        $head = ltrim((string) file_get_contents($path, length: self::HEAD), "\xEF\xBB\xBF \t\r\n");
        if (1 === preg_match('/^ply\s/', $head) || 1 === preg_match('/^(?:999\s*\R[^\n]*\R\s*)*0\s*\R\s*SECTION\s*\R/', $head)) {
            return 1.0;
        }
        if (!str_contains($head, '<LandXML')) {
            return 0.0;
        }
        $text = (string) file_get_contents($path);

        $isSurveyed = 1 === preg_match('/<(?:CgPoint|RawObservation|InstrumentSetup)\b/', $text);

        return 1 === preg_match('/<Surface\b/', $text) && !$isSurveyed ? 2.0 : 0.0;
    }

    public function kindOf(string $path): string
    {
        return FileKind::Design->value;
    }

    public function read(string $path, SurveyFile $file): Reading
    {
        return new FacesReading(FaceFile::read($path, $file->name()) ?? throw new UnusableInput($file->name(), 'holds no faces'));
    }

    public function understand(string $path, array $answers): array
    {
        return [FileKind::Design->value, []];
    }

    public function shape(string $path): string
    {
        return '';
    }
}
