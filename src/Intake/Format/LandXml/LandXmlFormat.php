<?php

declare(strict_types=1);

namespace App\Intake\Format\LandXml;

use App\Intake\Format\FileFormat;
use App\Intake\Format\Reading;
use App\Survey\SurveyFile;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\LandXml\LandXmlSurvey;
use Mensura\Fault\UnusableInput;

/** LandXML with survey observations, or points. */
final class LandXmlFormat implements FileFormat
{
    private const HEAD = 4096;

    public function recognises(string $path, string $name): float
    {
        return str_contains((string) file_get_contents($path, length: self::HEAD), '<LandXML') ? 1.0 : 0.0;
    }

    public function kindOf(string $path): string
    {
        return self::usual(self::survey($path))->value;
    }

    public function read(string $path, SurveyFile $file): Reading
    {
        $survey = self::survey($path, $file->names());
        $kind = FileKind::tryFrom(\is_string($file->mapping()['kind'] ?? null) ? $file->mapping()['kind'] : '');

        return new LandXmlReading($survey, $kind ?? self::usual($survey));
    }

    public function understand(string $path, array $answers): array
    {
        $kind = FileKind::tryFrom(\is_string($answers['kind'] ?? null) ? $answers['kind'] : '') ?? self::usual(self::survey($path));
        if (FileKind::Vectors === $kind) {
            throw new UnusableInput('/kind', 'vectors are not read from LandXML; bring them as a delimited file');
        }

        return [$kind->value, ['kind' => $kind->value]];
    }

    public function shape(string $path): string
    {
        return '';
    }

    /** Its observations, where it has some. */
    private static function usual(LandXmlSurvey $survey): FileKind
    {
        return [] === $survey->sights && [] !== $survey->points ? FileKind::Points : FileKind::TotalStation;
    }

    /** @param array<string, string> $names */
    private static function survey(string $path, array $names = []): LandXmlSurvey
    {
        return LandXmlSurvey::read((string) file_get_contents($path), $names);
    }
}
