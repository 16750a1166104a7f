<?php

declare(strict_types=1);

namespace App\Intake\Format\Cloud;

use App\Intake\Format\FileFormat;
use App\Intake\Format\Reading;
use App\Intake\Format\SaysFrame;
use App\Survey\SurveyFile;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Look\FileLook;
use Mensura\Exchange\Look\LasLook;
use Mensura\Exchange\Look\Looked;
use Mensura\Exchange\Look\Systems;
use Mensura\Exchange\Xyz\XyzReader;
use Mensura\Fault\UnusableInput;

/** Point clouds: LAS, LAZ, E57, PLY without faces, and lines of coordinates that carry no names. */
final class CloudFormat implements FileFormat, SaysFrame
{
    private const HEAD = 16384;

    /** More than what reads tables says of any file. */
    private const SURE = 1.5;

    public function recognises(string $path, string $name): float
    {
        $head = (string) file_get_contents($path, length: self::HEAD);
        if (str_starts_with($head, 'LASF') || str_starts_with($head, 'ASTM-E57')) {
            return self::SURE;
        }
        if (1 === preg_match('/^ply\s/', $head)) {
            return 1 === preg_match('/^element\s+face\s+0*[1-9]/m', $head) ? 0.0 : self::SURE;
        }

        return self::isNameless($head) ? self::SURE : 0.0;
    }

    public function kindOf(string $path): string
    {
        return FileKind::Cloud->value;
    }

    public function frame(string $path): ?string
    {
        if ('LASF' !== file_get_contents($path, length: 4)) {
            return null;
        }
        $look = new Looked('las');
        try {
            LasLook::header($look, $path, new Systems(), basename($path));
        } catch (UnusableInput) {
            return null; // said when it is read
        }

        return $look->crs;
    }

    public function read(string $path, SurveyFile $file): Reading
    {
        return new CloudReading(FileLook::of($path, $file->name())->toArray());
    }

    public function understand(string $path, array $answers): array
    {
        return [FileKind::Cloud->value, []];
    }

    public function shape(string $path): string
    {
        return '';
    }

    /** Lines of numbers whose first is a coordinate, not a number that names the point: it has decimals somewhere. */
    private static function isNameless(string $head): bool
    {
        $lines = preg_split('/\r\n|\n|\r/', $head) ?: [];
        if (\strlen($head) >= self::HEAD) {
            array_pop($lines); // cut off
        }
        $count = 0;
        $hasDecimals = false;
        foreach ($lines as $line) {
            $text = trim($line, " \t\xEF\xBB\xBF");
            if ('' === $text || '#' === $text[0] || ';' === $text[0] || str_starts_with($text, '//')) {
                continue;
            }
            if (null === XyzReader::numbers($text)) {
                return false;
            }
            ++$count;
            $hasDecimals = $hasDecimals || 1 === preg_match('/^[+-]?\d+\.\d+[\s,;]/', $text);
        }

        return $count > 0 && $hasDecimals;
    }
}
