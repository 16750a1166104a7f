<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/** A point of a file. Either e and n (metres) or lat and lon (decimal degrees); h and the standard deviations in metres. */
final class PointRecord
{
    /**
     * @param string                         $held components held, of "enh"; empty for none
     * @param array{?float, ?float, ?float} $sd   of easting, northing and height; null where none is stated
     */
    public function __construct(
        public readonly int $line,
        public readonly string $name,
        public readonly ?float $e,
        public readonly ?float $n,
        public readonly ?float $lat,
        public readonly ?float $lon,
        public readonly ?float $h,
        public readonly string $code,
        public readonly string $held,
        public readonly array $sd,
        public readonly ?Measured $measured = null,
    ) {
    }

    /** The same point with another place and height, metres. */
    public function at(?float $e, ?float $n, ?float $h): self
    {
        return new self(
            $this->line, $this->name, $e, $n, $this->lat, $this->lon, $h, $this->code, $this->held, $this->sd, $this->measured,
        );
    }

    /**
     * The same point held or weighted otherwise.
     *
     * @param string                        $held components held, of "enh"
     * @param array{?float, ?float, ?float} $sd   metres
     */
    public function fixed(string $held, array $sd): self
    {
        return new self(
            $this->line, $this->name, $this->e, $this->n, $this->lat, $this->lon, $this->h, $this->code, $held, $sd, $this->measured,
        );
    }

    /** The same point with other degrees. */
    public function atDegrees(?float $lat, ?float $lon): self
    {
        return new self(
            $this->line, $this->name, $this->e, $this->n, $lat, $lon, $this->h, $this->code, $this->held, $this->sd, $this->measured,
        );
    }
}
