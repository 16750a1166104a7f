<?php

declare(strict_types=1);

namespace App\Intake\Format\Features;

use App\Intake\Format\FileFormat;
use App\Intake\Format\Reading;
use App\Intake\Format\SaysFrame;
use App\Survey\SurveyFile;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Features\FeatureReader;
use Mensura\Exchange\Look\FileLook;
use Mensura\Exchange\Look\Looked;
use Mensura\Exchange\Look\NmeaLook;
use Mensura\Fault\UnusableInput;

/**
 * Points, lines and areas of shapefiles, GeoPackages, GeoJSON, KML, GPX, and the fixes of NMEA sentences. Which system they are in they
 * say themselves.
 */
final class FeaturesFormat implements FileFormat, SaysFrame
{
    private const HEAD = 4096;

    /** More than what reads tables, and less than what reads rover features, which are GeoJSON too. */
    private const SURE = 0.9;

    public function recognises(string $path, string $name): float
    {
        $head = (string) file_get_contents($path, length: self::HEAD);
        $text = ltrim($head, "\xEF\xBB\xBF \t\r\n");
        $is = str_starts_with($head, "SQLite format 3\0") || str_starts_with($head, "\0\0\x27\x0A")
            || str_starts_with($head, 'PK') && str_contains($head, '.shp')
            || str_starts_with($text, '<') && 1 === preg_match('/<(?:[\w.-]+:)?(?:kml|gpx)[\s>]/', $text)
            || str_starts_with($text, '{') && 1 === preg_match('/"type"\s*:\s*"(?:FeatureCollection|Feature|Point|MultiPoint)"/', $text)
            || NmeaLook::isOne($text);

        return $is ? self::SURE : 0.0;
    }

    public function kindOf(string $path): string
    {
        try {
            $look = FileLook::of($path, 'the file');
        } catch (UnusableInput) {
            return FileKind::Points->value; // the preview says what is wrong with it
        }
        $isDrawing = 0 === $look->counted(Looked::POINT) && $look->counted(Looked::LINE) + $look->counted(Looked::POLYGON) > 0;

        return ($isDrawing ? FileKind::Design : FileKind::Points)->value;
    }

    public function read(string $path, SurveyFile $file): Reading
    {
        return new FeaturesReading(FeatureReader::of($path, $file->name()), $file->name());
    }

    public function understand(string $path, array $answers): array
    {
        return [$this->kindOf($path), []];
    }

    public function shape(string $path): string
    {
        return '';
    }

    public function frame(string $path): ?string
    {
        try {
            return FileLook::of($path, 'the file')->crs;
        } catch (UnusableInput) {
            return null; // the preview says what is wrong with it
        }
    }
}
