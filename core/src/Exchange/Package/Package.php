<?php

declare(strict_types=1);

namespace Mensura\Exchange\Package;

use Mensura\Alignment\Alignment;

/** What goes to a field controller or a machine: points, lines, surfaces, alignments, and what their coordinates mean. Metres. */
final class Package
{
    /** @var list<array{name: string, e: float, n: float, h: ?float, code: string}> */
    public array $points = [];

    /** @var list<array{name: string, from: string, x: list<float>, y: list<float>, z: list<float>, triangles: list<int>}> */
    public array $surfaces = [];

    /** @var list<array{layer: string, vertices: list<array{float, float, float}>}> a closed line ends where it begins */
    public array $lines = [];

    /** @var list<array{layer: string, vertices: list<array{float, float, float}>}> to be seen only */
    public array $background = [];

    /** @var array<string, string> {@see LayerColour} by layer of lines */
    public array $layers = [];

    /** @var list<Alignment> */
    public array $alignments = [];

    /** WKT 2 of the system; empty for a plane local one. */
    public string $system = '';
    public string $systemName = 'plane local system';

    /** @var ?string "EPSG:n" where the registry has it */
    public ?string $systemCode = null;
    public string $heights = '';

    /** An open localization file; empty for none. */
    public string $localization = '';
    public string $localizationName = '';

    /** GTX bytes of a geoid about the site; empty for none. */
    public string $geoid = '';
    public string $geoidName = '';

    /** @var list<string> what was asked for and is not in it, in words */
    public array $leftOut = [];

    /** @var array<string, string> from which version each part comes: "points" => "Adjustment, run 6" */
    public array $from = [];

    /** @var string who looked at the package and when; empty while nobody did */
    public string $checked = '';

    public function __construct(public string $name, public string $project, public string $made)
    {
    }
}
