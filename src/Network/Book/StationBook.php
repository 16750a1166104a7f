<?php

declare(strict_types=1);

namespace App\Network\Book;

use App\Survey\ObservationRow;
use Mensura\Fault\UnusableInput;
use Mensura\Network\Settings;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;
use Mensura\TotalStation\ReducedSetup;
use Mensura\TotalStation\SetupReducer;

/** The total-station book of a project: its set-ups, reduced, and what of them goes into the adjustment. */
final readonly class StationBook
{
    private const KINDS = ['direction', 'zenith', 'slope-distance'];

    public function __construct(private BookSettings $settings)
    {
    }

    /**
     * Instrument set-ups: observations of one station, file and instrument height. Their sets are rounds, or set-ups of their own
     * where they have no target in common.
     *
     * @param iterable<ObservationRow> $rows
     *
     * @return array<string, BookedSetup>
     */
    public static function setups(iterable $rows): array
    {
        $setups = [];
        foreach ($rows as $row) {
            if (!\in_array($row->kind, self::KINDS, true)) {
                continue;
            }
            $key = $row->from.'|'.($row->fileId ?? '-');
            $setups[$key] ??= new BookedSetup($key, $row->from, $row->hi);
            $setups[$key]->add($row);
        }

        $apart = [];
        foreach ($setups as $all) {
            foreach ($all->byHeight() as $setup) {
                foreach ($setup->isOne() ? [$setup] : $setup->bySet() as $own) {
                    $apart[$own->key] = $own;
                }
            }
        }

        return $apart;
    }

    /** @throws UnusableInput */
    public function reduced(BookedSetup $setup): ReducedSetup
    {
        return (new SetupReducer($this->settings->core()))->reduce(
            $setup->core($this->settings->weather($setup), $this->settings->choice($setup->key)['prism']),
        );
    }

    /**
     * Distances with prism constant and atmosphere, and the means of set-ups that go in as means.
     *
     * @param list<ObservationRow> $rows
     * @param list<Observation>    $observations of them
     *
     * @return array{list<Observation>, list<int>} observations of the network and the rows they stand for
     */
    public function applied(array $rows, array $observations, Settings $settings): array
    {
        if ($this->settings->isUntouched()) {
            return [$observations, array_map(static fn (ObservationRow $r): int => $r->id, $rows)];
        }
        $setups = self::setups($rows);
        $index = [];
        foreach ($rows as $i => $row) {
            $index[$row->id] = $i;
        }
        $dropped = $means = [];
        foreach ($setups as $setup) {
            $choice = $this->settings->choice($setup->key);
            $factor = 1.0 + 1e-6 * $this->settings->core()->ppm($this->settings->weather($setup));
            if (BookSettings::MEANS !== $choice['mode']) {
                foreach ($setup->pointings as $pointing) {
                    if (isset($pointing['slope-distance'])) {
                        $i = $index[$pointing['slope-distance']->id];
                        $observations[$i] = $observations[$i]->with(
                            ['value' => ((float) $observations[$i]->value + $choice['prism']) * $factor],
                        );
                    }
                }
                continue;
            }
            foreach ($this->means($setup, $choice['precision'], $settings) as $id => [$observation, $all]) {
                $means[$id] = $observation;
                foreach ($all as $other) {
                    $dropped[$other] = true;
                }
            }
        }
        $out = $ids = [];
        foreach ($rows as $i => $row) {
            if (isset($means[$row->id])) {
                $out[] = $means[$row->id];
            } elseif (isset($dropped[$row->id])) {
                continue;
            } else {
                $out[] = $observations[$i];
            }
            $ids[] = $row->id;
        }

        return [$out, $ids];
    }

    /**
     * @return list<Observation> the means of a set-up, with the precision chosen for it
     *
     * @throws UnusableInput
     */
    public function meansOf(BookedSetup $setup, Settings $settings): array
    {
        $means = [];
        foreach ($this->means($setup, $this->settings->choice($setup->key)['precision'], $settings) as [$observation]) {
            $means[] = $observation;
        }

        return $means;
    }

    /** @return iterable<int, array{Observation, list<int>}> the mean and the rows in it, by the first of them */
    private function means(BookedSetup $setup, string $precision, Settings $settings): iterable
    {
        $reduced = $this->reduced($setup);
        $members = [];
        foreach ($setup->reducible() as $k) {
            $p = $setup->pointings[$k];
            $members[$p['direction']->to.'|'.\sprintf('%.4f', $p['zenith']->ht)][] = $p;
        }
        $perSight = BookSettings::FROM_ROUNDS === $precision ? $reduced->sdDirection ?? $reduced->spread : null;
        $perZenith = BookSettings::FROM_ROUNDS === $precision ? $reduced->sdZenith : null;
        foreach ($reduced->targets as $target) {
            $own = $members[$target->target.'|'.\sprintf('%.4f', $target->targetHeight)] ?? [];
            if ([] === $own) {
                continue;
            }
            // A pair counts once: both faces are one measurement of the direction.
            $sights = 'both' === $target->faces ? max(1, intdiv($target->pointings, 2)) : $target->pointings;
            $root = sqrt($sights);
            foreach ([
                'direction' => $target->direction, 'zenith' => $target->zenith, 'slope-distance' => $target->slope,
            ] as $kind => $value) {
                $rows = array_values(array_filter(array_map(static fn (array $p): ?ObservationRow => $p[$kind] ?? null, $own)));
                if (null === $value || [] === $rows) {
                    continue;
                }
                $sd = MeanPrecision::of(
                    $kind, $target->slope, $target->horizontal, $root, 'direction' === $kind ? $perSight : $perZenith, $settings,
                );
                yield $rows[0]->id => [
                    new Observation(
                        ObservationKind::from($kind), $setup->station, $target->target, $value, $sd,
                        'mean '.implode(' ', \array_slice(explode('|', $setup->key), 1)),
                        instrumentHeight: $setup->hi, targetHeight: $target->targetHeight,
                    ),
                    array_map(static fn (ObservationRow $r): int => $r->id, $rows),
                ];
            }
        }
    }
}
