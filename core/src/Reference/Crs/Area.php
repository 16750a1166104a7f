<?php

declare(strict_types=1);

namespace Mensura\Reference\Crs;

/** An area of use in degrees; west above east means that it crosses the 180th meridian. */
final readonly class Area
{
    public function __construct(public float $south, public float $west, public float $north, public float $east, public string $name = '')
    {
        if (is_nan($south + $west + $north + $east)
            || abs($south) > 90.0
            || abs($north) > 90.0
            || $south > $north
            || abs($west) > 180.0
            || abs($east) > 180.0
        ) {
            throw new \DomainException(
                'An area is south, west, north, east in degrees: latitudes within 90, south below north, longitudes within 180.',
            );
        }
    }

    /** The name without its list of countries and waters. */
    public function shortName(): string
    {
        return rtrim((string) preg_replace('/[:;(].*$/su', '', $this->name), ' .');
    }

    public static function world(): self
    {
        return new self(-90.0, -180.0, 90.0, 180.0, 'World');
    }

    /**
     * @param list<float> $lats degrees
     * @param list<float> $lons
     */
    public static function around(array $lats, array $lons): self
    {
        if ([] === $lats || [] === $lons) {
            throw new \DomainException('An area needs at least one point.');
        }

        return new self(min($lats), min($lons), max($lats), max($lons));
    }

    public function contains(float $lat, float $lon): bool
    {
        if ($lat < $this->south || $lat > $this->north) {
            return false;
        }

        return $this->west <= $this->east ? $lon >= $this->west && $lon <= $this->east : $lon >= $this->west || $lon <= $this->east;
    }

    public function covers(self $other): bool
    {
        if ($other->south < $this->south || $other->north > $this->north) {
            return false;
        }
        if ($this->width() >= 360.0) {
            return true;
        }
        $offset = fmod($other->west - $this->west + 720.0, 360.0);

        return $offset + $other->width() <= $this->width() + 1e-9;
    }

    public function intersection(self $other): ?self
    {
        $south = max($this->south, $other->south);
        $north = min($this->north, $other->north);
        if ($south > $north) {
            return null;
        }
        if ($this->width() >= 360.0) {
            return new self($south, $other->west, $north, $other->east, $other->name);
        }
        if ($other->width() >= 360.0) {
            return new self($south, $this->west, $north, $this->east, $this->name);
        }
        $offset = fmod($other->west - $this->west + 720.0, 360.0);
        if ($offset <= $this->width()) {
            $west = $other->west;
            $width = min($this->width() - $offset, $other->width());
        } elseif (360.0 - $offset <= $other->width()) {
            $west = $this->west;
            $width = min($other->width() - (360.0 - $offset), $this->width());
        } else {
            return null;
        }
        $east = $west + $width;

        return new self(
            $south, $west, $north, $east > 180.0 ? $east - 360.0 : $east,
            $this->width() < $other->width() ? $this->name : $other->name,
        );
    }

    /** Degrees of longitude. */
    public function width(): float
    {
        $w = $this->east - $this->west;

        return $w < 0.0 ? $w + 360.0 : $w;
    }

    /** Size for comparing areas: degrees of longitude times the difference of the sines. */
    public function size(): float
    {
        return $this->width() * (sin(deg2rad($this->north)) - sin(deg2rad($this->south)));
    }

    /** @return array{float, float, float, float} south, west, north, east */
    public function bounds(): array
    {
        return [$this->south, $this->west, $this->north, $this->east];
    }
}
