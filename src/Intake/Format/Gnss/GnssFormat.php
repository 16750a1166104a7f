<?php

declare(strict_types=1);

namespace App\Intake\Format\Gnss;

use App\Intake\Format\FileFormat;
use App\Intake\Format\Reading;
use App\Survey\SurveyFile;
use Mensura\Exchange\Antex\AntexReader;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\Packed;
use Mensura\Exchange\Rinex\Recorded;
use Mensura\Exchange\Rinex\Sp3Reader;
use Mensura\Exchange\RoverFeatures\RoverFeatures;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\PreciseOrbits;

/** RINEX observations and navigation, SP3 orbits, features of a mapping rover, receiver logs and RTCM streams; also packed by gzip. */
final class GnssFormat implements FileFormat
{
    public function recognises(string $path, string $name): float
    {
        return null === self::kindIn($path) ? 0.0 : 1.0;
    }

    public function kindOf(string $path): string
    {
        return (self::kindIn($path) ?? throw new UnusableInput('', 'is neither RINEX nor SP3 nor rover features'))->value;
    }

    public function read(string $path, SurveyFile $file): Reading
    {
        $bytes = Packed::contents((string) file_get_contents($path), $file->name());
        switch (self::kindIn($path)) {
            case FileKind::Antennas:
                return GnssReading::ofAntennas(AntexReader::read($bytes, $file->name()));
            case FileKind::Recording:
                return GnssReading::ofRecording(Recorded::read($bytes, $file->name()));
            case FileKind::RoverFeatures:
                return GnssReading::ofFeatures(RoverFeatures::read($bytes, $file->name()));
            case FileKind::Occupation:
                return GnssReading::ofOccupation(ObservationReader::read($bytes, $file->name()));
            case FileKind::Navigation:
                return GnssReading::ofNavigation(NavigationReader::read($bytes, $file->name()));
            default:
                $orbits = new PreciseOrbits();
                Sp3Reader::read($bytes, $file->name(), $orbits);

                return GnssReading::ofOrbits($orbits);
        }
    }

    public function understand(string $path, array $answers): array
    {
        return [$this->kindOf($path), []]; // it says itself what it is
    }

    public function shape(string $path): string
    {
        return '';
    }

    private static function kindIn(string $path): ?FileKind
    {
        $head = Packed::head($path);
        if (1 === preg_match('/^#[a-d][PV]/', $head)) {
            return FileKind::Orbits;
        }
        if (str_starts_with(ltrim($head), '{') && 1 === preg_match(
            '#"format"\s*:\s*"'.RoverFeatures::FORMAT.'"#', strtr($head, ['\/' => '/']),
        )) {
            return FileKind::RoverFeatures;
        }
        if (null !== Recorded::kindOf($head)) {
            return FileKind::Recording;
        }
        if ('ANTEX VERSION / SYST' === substr($head, 60, 20)) {
            return FileKind::Antennas;
        }
        if ('RINEX VERSION / TYPE' !== substr($head, 60, 20)) {
            return null;
        }

        return match (strtoupper($head[20])) {
            'O' => FileKind::Occupation,
            'N', 'G', 'E', 'H' => FileKind::Navigation,
            default => null,
        };
    }
}
