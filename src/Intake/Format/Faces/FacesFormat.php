<?php

declare(strict_types=1);

namespace App\Intake\Format\Faces;

use App\Intake\Format\FileFormat;
use App\Intake\Format\Reading;
use App\Survey\SurveyFile;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Faces\FaceFile;
use Mensura\Exchange\LandXml\LandXmlAlignments;
use Mensura\Fault\UnusableInput;

/**
 * Design that others drew: faces, lines and points in DXF, faces in PLY, GeoTIFF of heights, and LandXML that holds a surface or
 * alignments and nothing that was surveyed.
 */
final class FacesFormat implements FileFormat
{
    private const HEAD = 4096;

    public function recognises(string $path, string $name): float
    {
        $bytes = (string) file_get_contents($path, length: self::HEAD);
        $head = ltrim($bytes, "\xEF\xBB\xBF \t\r\n");
        if (\in_array(substr($bytes, 0, 4), FaceFile::TIFF, true)) {
            return 1.0;
        }
        if (1 === preg_match('/^ply\s/', $head)) {
            return 1 === preg_match('/^element\s+face\s+0*[1-9]/m', $head) ? 1.0 : 0.0;
        }
        if (1 === preg_match('/^(?:999\s*\R[^\n]*\R\s*)*0\s*\R\s*SECTION\s*\R/', $head)) {
            return 1.0;
        }
        if (!str_contains($head, '<LandXML')) {
            return 0.0;
        }
        $text = (string) file_get_contents($path);

        $isSurveyed = 1 === preg_match('/<(?:CgPoint|RawObservation|InstrumentSetup)\b/', $text);

        return 1 === preg_match('/<(?:Surface|Alignment)\b/', $text) && !$isSurveyed ? 2.0 : 0.0;
    }

    private static function isLandXml(string $path): bool
    {
        return str_contains((string) file_get_contents($path, length: self::HEAD), '<LandXML');
    }

    public function kindOf(string $path): string
    {
        return FileKind::Design->value;
    }

    public function read(string $path, SurveyFile $file): Reading
    {
        $alignments = self::isLandXml($path) ? LandXmlAlignments::read($path, $file->name()) : [];
        if ([] !== $alignments && 1 !== preg_match('/<Surface\b/', (string) file_get_contents($path))) {
            return new FacesReading(null, $alignments);
        }
        $faces = FaceFile::drawing($path, $file->name()) ?? throw new UnusableInput($file->name(), 'holds no faces');

        return new FacesReading($faces, $alignments);
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
