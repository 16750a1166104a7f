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
        TableLook::read(
            new Looked('csv'), $path, $name,
            static function (array $cells, array $place, array $headings, array $taken) use ($set, $layer): void {
                $set->features[] = new Feature(Feature::POINT, $layer, [[[$place]]], self::said($cells, $headings, $taken));
            },
        );
    }

    /**
     * @param list<string> $cells
     * @param list<string> $headings
     * @param list<int>    $taken    columns that are the place
     *
     * @return array<string, ?string>
     */
    private static function said(array $cells, array $headings, array $taken): array
    {
        // A table without headings begins with the name.
        if ([] === $headings) {
            return \in_array(0, $taken, true) ? [] : ['name' => $cells[0] ?? ''];
        }
        $said = [];
        foreach ($headings as $k => $heading) {
            if ('' !== trim($heading) && !\in_array($k, $taken, true)) {
                $text = $cells[$k] ?? '';
                $said[trim($heading)] = '' === $text ? null : $text;
            }
        }

        return $said;
    }
}
