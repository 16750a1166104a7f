<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rinex;

/**
 * How a receiver tracked its satellites: the time in equal cells, and of each satellite and cell how much of it was tracked, how
 * strong, and how often lock was lost.
 */
final class Tracking
{
    /** Seconds from the first to the end of the last cell. */
    public float $span = 0.0;

    /**
     * @var array<string, array{tracked: list<float>, strength: list<?float>, lost: list<int>}> share of the cell's epochs; dB-Hz on the
     *     first band
     */
    public array $satellites = [];

    /** @var list<int> greatest number of satellites in each cell */
    public array $count = [];

    /** @param positive-int $cells */
    public function __construct(ObservationFile $file, int $cells)
    {
        $first = $file->times[0];
        $last = $file->times[\count($file->times) - 1];
        $this->span = max(1.0, $last->since($first) + ($file->interval() ?? 1.0));
        $epochs = array_fill(0, $cells, 0);
        $tracked = $strength = $lost = [];
        $this->count = array_fill(0, $cells, 0);
        $places = [];
        foreach (array_keys($file->types) as $system) {
            $places[$system] = self::places($file, (string) $system);
        }
        $before = [];
        foreach ($file->times as $k => $time) {
            $cell = min($cells - 1, (int) ($cells * $time->since($first) / $this->span));
            ++$epochs[$cell];
            $this->count[$cell] = max($this->count[$cell], $file->epochStart[$k + 1] - $file->epochStart[$k]);
            for ($i = $file->epochStart[$k]; $i < $file->epochStart[$k + 1]; ++$i) {
                $satellite = $file->satellite[$i];
                $tracked[$satellite][$cell] = ($tracked[$satellite][$cell] ?? 0) + 1;
                [$phases, $strengths] = $places[$satellite[0]];
                foreach ($strengths as $p) {
                    $value = $file->value[$file->valueStart[$i] + $p];
                    if (!is_nan($value)) {
                        $strength[$satellite][$cell][] = $value;
                        break;
                    }
                }
                $isLost = isset($before[$satellite]) && $before[$satellite] < $k - 1;
                foreach ($phases as $p) {
                    $isLost = $isLost || isset($before[$satellite]) && 1 === ($file->lossOfLock[$file->valueStart[$i] + $p] & 1);
                }
                $lost[$satellite][$cell] = ($lost[$satellite][$cell] ?? 0) + ($isLost ? 1 : 0);
                $before[$satellite] = $k;
            }
        }
        ksort($tracked);
        foreach ($tracked as $satellite => $counts) {
            $row = ['tracked' => [], 'strength' => [], 'lost' => []];
            for ($c = 0; $c < $cells; ++$c) {
                $row['tracked'][] = round(($counts[$c] ?? 0) / max(1, $epochs[$c]), 2);
                $s = $strength[$satellite][$c] ?? [];
                $row['strength'][] = [] === $s ? null : round(array_sum($s) / \count($s), 1);
                $row['lost'][] = $lost[$satellite][$c] ?? 0;
            }
            $this->satellites[(string) $satellite] = $row;
        }
    }

    /** @return array{list<int>, list<int>} places of phases, and of strengths of the first band, among the values of a system */
    private static function places(ObservationFile $file, string $system): array
    {
        $phases = $strengths = [];
        foreach ($file->types[$system] as $p => $type) {
            if ('L' === $type[0]) {
                $phases[] = $p;
            } elseif ('S' === $type[0] && ('1' === $type[1] || 'C' === $system && '2' === $type[1])) {
                $strengths[] = $p;
            }
        }

        return [$phases, $strengths];
    }
}
