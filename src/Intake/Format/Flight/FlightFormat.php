<?php

declare(strict_types=1);

namespace App\Intake\Format\Flight;

use App\Intake\Format\FileFormat;
use App\Intake\Format\Reading;
use App\Intake\Format\SaysFrame;
use App\Survey\SurveyFile;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\FlightJson\MissionReader;
use Mensura\Fault\UnusableInput;

/** The mission of a photo flight; its images come as photos of the same names. */
final class FlightFormat implements FileFormat, SaysFrame
{
    private const HEAD = 4096;

    public function recognises(string $path, string $name): float
    {
        // JSON may write a stroke with another before it.
        $head = str_replace('\\/', '/', (string) file_get_contents($path, length: self::HEAD));

        return str_starts_with(ltrim($head), '{') && str_contains($head, '"'.MissionReader::FORMAT.'"') ? 2.0 : 0.0;
    }

    public function kindOf(string $path): string
    {
        return FileKind::Flight->value;
    }

    public function read(string $path, SurveyFile $file): Reading
    {
        return new FlightReading(MissionReader::read((string) file_get_contents($path)));
    }

    public function understand(string $path, array $answers): array
    {
        return [FileKind::Flight->value, []];
    }

    public function shape(string $path): string
    {
        return '';
    }

    public function frame(string $path): ?string
    {
        try {
            $system = MissionReader::read((string) file_get_contents($path))->system;
        } catch (UnusableInput) {
            return null; // the preview says what is wrong with it
        }

        return '' === $system ? null : $system;
    }
}
