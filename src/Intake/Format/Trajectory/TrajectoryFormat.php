<?php

declare(strict_types=1);

namespace App\Intake\Format\Trajectory;

use App\Intake\Format\FileFormat;
use App\Intake\Format\Reading;
use App\Survey\SurveyFile;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\PassesJson\TimedCsv;

/** Where a mobile mapper was, row by row: time, e, n, h and how it was turned. */
final class TrajectoryFormat implements FileFormat
{
    private const HEAD = 4096;
    /** More than what reads tables says of any file. */
    private const SURE = 1.6;

    public function recognises(string $path, string $name): float
    {
        return TimedCsv::isTrajectory((string) file_get_contents($path, length: self::HEAD)) ? self::SURE : 0.0;
    }

    public function kindOf(string $path): string
    {
        return FileKind::Trajectory->value;
    }

    public function read(string $path, SurveyFile $file): Reading
    {
        return new TrajectoryReading((new TimedCsv($path, $file->name()))->trajectory());
    }

    public function understand(string $path, array $answers): array
    {
        return [FileKind::Trajectory->value, []];
    }

    public function shape(string $path): string
    {
        return '';
    }
}
