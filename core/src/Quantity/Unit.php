<?php

declare(strict_types=1);

namespace Mensura\Quantity;

/** Units a column of a file may be in. Lengths convert to metres, angles to degrees, variances to square metres. */
enum Unit: string
{
    case Metre = 'm';
    case Millimetre = 'mm';
    case Centimetre = 'cm';
    case InternationalFoot = 'ft';
    case SurveyFoot = 'ftUS';
    case Degree = 'deg';
    case DegreeMinuteSecond = 'dms';
    case PackedDegree = 'd.mmss';
    case Gon = 'gon';
    case ArcSecond = 'arcsec';
    case SquareMetre = 'm2';
    case SquareMillimetre = 'mm2';

    public function factor(): float
    {
        return match ($this) {
            self::Metre, self::Degree, self::DegreeMinuteSecond, self::PackedDegree, self::SquareMetre => 1.0,
            self::Millimetre => 0.001,
            self::Centimetre => 0.01,
            self::InternationalFoot => 0.3048,
            self::SurveyFoot => 1200.0 / 3937.0,
            self::Gon => 0.9,
            self::ArcSecond => 1.0 / 3600.0,
            self::SquareMillimetre => 1e-6,
        };
    }

    /** @return list<self> */
    public static function of(string $quantity): array
    {
        return match ($quantity) {
            'length' => [self::Metre, self::Millimetre, self::Centimetre, self::InternationalFoot, self::SurveyFoot],
            'angle' => [self::Degree, self::DegreeMinuteSecond, self::PackedDegree, self::Gon],
            'variance' => [self::SquareMetre, self::SquareMillimetre],
            default => [],
        };
    }

    public static function fromHeader(string $text): ?self
    {
        return match (strtolower(trim($text))) {
            'm', 'metre', 'metres', 'meter', 'meters' => self::Metre,
            'mm' => self::Millimetre,
            'cm' => self::Centimetre,
            'ft', 'foot', 'feet' => self::InternationalFoot,
            'ftus', 'usft', 'survey feet', 'us survey feet' => self::SurveyFoot,
            'deg', '°', 'degree', 'degrees', 'decimal degrees' => self::Degree,
            'dms', 'd m s' => self::DegreeMinuteSecond,
            'd.mmss' => self::PackedDegree,
            'gon', 'grad' => self::Gon,
            'm2', 'm^2', 'sq m' => self::SquareMetre,
            'mm2', 'mm^2' => self::SquareMillimetre,
            default => null,
        };
    }

    /** The value of a cell in the base unit, null when it cannot be read. A decimal comma is accepted. */
    public function read(string $cell): ?float
    {
        $cell = trim($cell);
        if (self::DegreeMinuteSecond === $this) {
            return Angle::parse($cell);
        }
        if (self::PackedDegree === $this) {
            return Angle::parsePacked($cell);
        }
        if (1 === preg_match('/^[+-]?\d+,\d+$/', $cell)) {
            $cell = strtr($cell, ',', '.');
        }
        if (!is_numeric($cell) || !is_finite((float) $cell)) {
            return null;
        }

        return (float) $cell * $this->factor();
    }
}
