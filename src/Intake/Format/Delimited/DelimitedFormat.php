<?php

declare(strict_types=1);

namespace App\Intake\Format\Delimited;

use App\Intake\Format\FileFormat;
use App\Intake\Format\Reading;
use App\Survey\SurveyFile;
use Mensura\Exchange\Delimited\DelimitedTable;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Guess;
use Mensura\Exchange\Delimited\Heading;
use Mensura\Exchange\Delimited\Mapping;
use Mensura\Quantity\Unit;

/** Text in columns with headings: control, points, pointings, vectors. Takes whatever no other format is surer of. */
final class DelimitedFormat implements FileFormat
{
    private const SURE = 0.1;

    public function recognises(string $path, string $name): float
    {
        return self::SURE;
    }

    public function kindOf(string $path): string
    {
        return Guess::best(self::table($path))->kind->value;
    }

    public function read(string $path, SurveyFile $file): Reading
    {
        $table = self::table($path);
        $mapping = [] === $file->mapping() ? Guess::best($table) : Mapping::fromArray($file->mapping(), $table);

        $usual = Unit::tryFrom((string) ($file->project()->units()['length'] ?? '')) ?? Unit::Metre;

        return new DelimitedReading($table, $mapping, $usual, $file->names());
    }

    public function understand(string $path, array $answers): array
    {
        $table = self::table($path);
        // A new kind alone means: find its columns again.
        $kind = FileKind::tryFrom(\is_string($answers['kind'] ?? null) ? $answers['kind'] : '') ?? FileKind::Points;
        $mapping = isset($answers['columns']) ? Mapping::fromArray($answers, $table) : Guess::of($kind, $table);

        return [$mapping->kind->value, $mapping->toArray()];
    }

    public function shape(string $path): string
    {
        $table = self::table($path);

        return $table->hasHeader ? Heading::shape($table->header) : '';
    }

    private static function table(string $path): DelimitedTable
    {
        return DelimitedTable::parse((string) file_get_contents($path));
    }
}
