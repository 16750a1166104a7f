<?php

declare(strict_types=1);

namespace Mensura\Reference\Crs;

use Mensura\Geodesy\Ellipsoid;

/** A geodetic datum (or datum ensemble) with its ellipsoid and the prime meridian its longitudes are counted from. */
final readonly class Datum
{
    /**
     * @param ?string           $code          authority and code, "EPSG:6258"; null when only named
     * @param float             $primeMeridian degrees east of Greenwich
     * @param array<int, string> $members      codes of the datums of an ensemble
     * @param ?float            $accuracy      metres within which an ensemble's members agree
     * @param ?float            $epoch         reference epoch of a dynamic datum, decimal year
     */
    public function __construct(
        public ?string $code,
        public string $name,
        public Ellipsoid $ellipsoid,
        public float $primeMeridian = 0.0,
        public string $primeMeridianName = 'Greenwich',
        public array $members = [],
        public ?float $accuracy = null,
        public ?float $epoch = null,
    ) {
    }

    public function isUnknown(): bool
    {
        return null === $this->code && str_starts_with(strtolower($this->name), 'unknown');
    }

    public function sameAs(self $other): bool
    {
        if ($this->isUnknown() || $other->isUnknown()) {
            return false;
        }

        return null !== $this->code
            && null !== $other->code ? $this->code === $other->code : self::key($this->name) === self::key($other->name);
    }

    /** A datum's name with what spellings differ in left out. */
    public static function key(string $name): string
    {
        $key = preg_replace('/[^a-z0-9]/', '', strtolower($name)) ?? '';
        $key = preg_replace('/ensemble$/', '', $key) ?? $key;
        $key = preg_replace('/^d(?=wgs|north|european|etrs|os|deutsch|ch)/', '', $key) ?? $key;

        return match ($key) {
            'wgs84', 'wgs1984', 'worldgeodeticsystem84' => 'worldgeodeticsystem1984',
            'etrs89', 'etrs1989', 'europeanterrestrialreferencesystem89' => 'europeanterrestrialreferencesystem1989',
            'nad83', 'northamerican1983', 'northamericandatum83' => 'northamericandatum1983',
            'nad27', 'northamerican1927', 'northamericandatum27' => 'northamericandatum1927',
            'ed50', 'european1950' => 'europeandatum1950',
            default => $key,
        };
    }
}
