<?php

declare(strict_types=1);

namespace Mensura\Reference\Crs;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Operation\Binding;
use Mensura\Reference\Projection;

/**
 * A geographic, projected or geocentric coordinate reference system. Its projection works in radians from the
 * system's own prime meridian and in metres growing east and north, whatever unit and axes the system itself has.
 */
final readonly class HorizontalSystem
{
    public const GEOGRAPHIC = 'geographic';
    public const PROJECTED = 'projected';
    public const GEOCENTRIC = 'geocentric';

    /**
     * @param ?string    $code       "EPSG:25830"
     * @param ?string    $geodetic   code of the geodetic system beneath, "EPSG:4258"
     * @param int        $dimension  3 when the system has an ellipsoidal height
     * @param float      $unit       metres per linear unit (1 for geographic systems, whose values are decimal degrees here)
     * @param list<Axis> $axes       as the registry lists them
     * @param ?string    $successor  code to use instead of a deprecated one
     * @param ?Binding   $binding    the way to another system that the definition itself carries
     */
    public function __construct(
        public string $kind,
        public ?string $code,
        public string $name,
        public Datum $datum,
        public ?string $geodetic = null,
        public int $dimension = 2,
        public ?Conversion $conversion = null,
        public ?Projection $projection = null,
        public float $unit = 1.0,
        public string $unitName = 'metre',
        public array $axes = [],
        public ?Area $area = null,
        public bool $deprecated = false,
        public ?string $successor = null,
        public ?Binding $binding = null,
        public string $geodeticName = '',
    ) {
        if ((self::PROJECTED === $kind) !== (null !== $projection)) {
            throw new \LogicException('A projected system has a projection, no other has.');
        }
    }

    /** The same system under another name, with another number of dimensions or another unit; its own then has no code of a registry. */
    public function with(
        ?string $name = null, ?int $dimension = null, ?float $unit = null, ?string $unitName = null, bool $isOwn = false,
    ): self {
        return new self(
            $this->kind, $isOwn ? null : $this->code, $name ?? $this->name, $this->datum, $this->geodetic,
            $dimension ?? $this->dimension, $this->conversion,
            $this->projection, $unit ?? $this->unit, $unitName ?? $this->unitName, $this->axes, $this->area,
            $this->deprecated, $this->successor,
            $this->binding, $this->geodeticName,
        );
    }

    public function ellipsoid(): Ellipsoid
    {
        return $this->datum->ellipsoid;
    }

    /** The projection of a projected system. */
    public function plane(): Projection
    {
        return $this->projection
            ?? throw new \DomainException(\sprintf('%s is %s, not projected: it has no eastings and northings.', $this->name, $this->kind));
    }

    public function isProjected(): bool
    {
        return self::PROJECTED === $this->kind;
    }

    public function label(): string
    {
        return null === $this->code ? $this->name : $this->code.' '.$this->name;
    }

    public function pointsWest(): bool
    {
        return $this->points('west');
    }

    public function pointsSouth(): bool
    {
        return $this->points('south');
    }

    /**
     * Radians from Greenwich of a position in metres.
     *
     * @return array{float, float} latitude, longitude
     */
    public function toGeographic(float $e, float $n): array
    {
        [$lat, $lon] = $this->plane()->inverse($e, $n);

        return [$lat, $lon + deg2rad($this->datum->primeMeridian)];
    }

    /** @return array{float, float} metres east and north of a position in radians from Greenwich */
    public function fromGeographic(float $lat, float $lon): array
    {
        return $this->plane()->forward($lat, $lon - deg2rad($this->datum->primeMeridian));
    }

    private function points(string $direction): bool
    {
        foreach ($this->axes as $axis) {
            if ($axis->direction === $direction) {
                return true;
            }
        }

        return false;
    }
}
