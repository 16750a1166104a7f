<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Read;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Look\Looked;
use Mensura\Exchange\Look\TableLook;

/** Points of a table of text, with what its other columns say; lines of numbers alone have no properties. */
final class TableFeatures
{
    public static function read(FeatureSet $set, string $path, string $layer, string $name): void
    {
        $looked = new Looked('csv');
        $each = static function (array $cells, array $place, array $headings, array $taken) use ($set, $layer): void {
            $properties = [];
            foreach ($headings as $k => $heading) {
                if ('' !== trim($heading) && !\in_array($k, $taken, true)) {
                    $text = $cells[$k] ?? '';
                    $properties[trim($heading)] = '' === $text ? null : $text;
                }
            }
            // A table without headings begins with the name.
            if ([] === $headings && !\in_array(0, $taken, true)) {
                $properties = ['name' => $cells[0]];
            }
            $set->features[] = new Feature(Feature::POINT, $layer, [[[$place]]], $properties);
        };
        TableLook::read($looked, $path, $name, $each);
    }
}
