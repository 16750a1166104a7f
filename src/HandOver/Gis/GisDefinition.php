<?php

declare(strict_types=1);

namespace App\HandOver\Gis;

use App\HandOver\Kept\Definition;
use App\HandOver\Kept\Given;
use App\HandOver\Package\PackageDefinition;
use Mensura\Fault\UnusableInput;

/** What goes to an information system: which points and lines, how well known, with what said of each, in which system and format. */
final readonly class GisDefinition implements Definition
{
    public const ATTRIBUTES = ['name', 'code', 'role', 'height', 'sd_e', 'sd_n', 'sd_h', 'source', 'file', 'time', 'method', 'satellites'];

    /** Ending of the file that is written, by format. */
    public const FORMATS = ['gpkg' => 'GeoPackage', 'shp' => 'Shapefile', 'geojson' => 'GeoJSON', 'kml' => 'KML'];

    /**
     * @param list<string>                         $roles      of points
     * @param list<string>                         $codes      of these; empty for all
     * @param ?float                               $plan       greatest standard deviation in plan that goes along, metres; null for any
     * @param ?float                               $up         in height
     * @param bool                                 $unknown    whether points go along whose precision nobody knows
     * @param list<array{file: int, layer: string}> $layers    of drawings; closed lines are areas
     * @param list<string>                         $attributes of {@see ATTRIBUTES}
     * @param string                               $system     "EPSG:n"; empty for the project's own
     */
    private function __construct(
        public string $format, public array $roles, public array $codes, public ?float $plan, public ?float $up, public bool $unknown,
        public array $layers, public array $attributes, public string $system,
    ) {
    }

    /**
     * @param array<mixed> $d
     *
     * @throws UnusableInput naming the field
     */
    public static function fromArray(array $d): self
    {
        $given = new Given($d);
        $known = static function (string $key, array $of) use ($given): array {
            $texts = $given->texts($key);
            foreach (array_diff($texts, $of) as $text) {
                $given->refuse($key, \sprintf('"%s" is none of %s', $text, implode(', ', $of)));
            }

            return $texts;
        };
        $system = $given->text('system', 40);
        if ('' !== $system && 1 !== preg_match('/^EPSG:\d{1,9}$/D', $system)) {
            $given->refuse('system', 'is a code such as EPSG:25832, or empty for the project\'s own');
        }

        return new self(
            $given->oneOf('format', array_keys(self::FORMATS), 'gpkg'), $known('roles', PackageDefinition::ROLES), $given->texts('codes'),
            $given->numberOrNull('plan', 0.0, 1e4), $given->numberOrNull('up', 0.0, 1e4), $given->is('unknown', true),
            array_map(
                static fn (Given $l): array => ['file' => $l->whole('file', 1), 'layer' => $l->text('layer')], $given->items('layers'),
            ),
            $given->has('attributes') ? $known('attributes', self::ATTRIBUTES) : self::ATTRIBUTES, $system,
        );
    }

    public function toArray(): array
    {
        return get_object_vars($this);
    }
}
