<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Read;

use Mensura\Exchange\Dxf\DxfRecord;
use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Look\Tap;
use Mensura\Fault\UnusableInput;

/**
 * Makes features of the rows of a table and the records of a drawing while they are looked at; lines of numbers alone have no
 * properties.
 */
final class FeatureTap implements Tap
{
    public readonly DxfFeatures $drawing;

    /** @param int $most features that are taken */
    public function __construct(private readonly FeatureSet $set, private readonly string $layer, private readonly int $most)
    {
        $this->drawing = new DxfFeatures($set);
    }

    public function row(array $cells, array $place, array $headings, array $taken): void
    {
        $this->set->features[] = new Feature(Feature::POINT, $this->layer, [[[$place]]], self::said($cells, $headings, $taken));
        $this->limit();
    }

    public function record(DxfRecord $record): void
    {
        $this->drawing->take($record);
        $this->limit();
    }

    /** @throws UnusableInput */
    private function limit(): void
    {
        if (\count($this->set->features) > $this->most) {
            throw self::tooMany('more than '.$this->most, $this->most);
        }
    }

    public static function tooMany(string $count, int $most): UnusableInput
    {
        $words = 'holds %s features; up to %d are converted at once. A larger cloud goes through the verb cloud';

        return new UnusableInput('', \sprintf($words, $count, $most));
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
