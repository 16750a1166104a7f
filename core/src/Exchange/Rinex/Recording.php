<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rinex;

use Mensura\Gnss\Ephemeris;
use Mensura\Gnss\GpsTime;

/** What a receiver recorded in a form of its own: observations, ephemerides, and what was met on reading it. */
final class Recording
{
    public readonly ObservationFile $file;

    /** @var array<string, Ephemeris> */
    public array $ephemerides = [];

    /** @var array<int|string, int> messages or records by kind */
    public array $messages = [];

    /** @var list<string> */
    public array $warnings = [];

    /** @var array<array-key, array{GpsTime, array<string, array<string, float>>, array<string, array<string, int>>}> by instant */
    private array $epochs = [];

    public function __construct(public readonly string $kind)
    {
        $this->file = new ObservationFile();
        $this->file->version = 3.04;
    }

    /**
     * Observations of an instant; those of several systems come one after the other.
     *
     * @param array<string, array<string, float>> $values by satellite and type
     * @param array<string, array<string, int>>   $lost   loss of lock indicators
     */
    public function add(GpsTime $time, array $values, array $lost): void
    {
        $key = (string) round(1000.0 * $time->sinceEpoch());
        $epoch = $this->epochs[$key] ?? [$time, [], []];
        $this->epochs[$key] = [$epoch[0], $values + $epoch[1], $lost + $epoch[2]];
    }

    /** Brings all that was added into the file, in time. */
    public function finish(): void
    {
        $f = $this->file;
        uasort($this->epochs, static fn (array $a, array $b): int => $a[0]->since($b[0]) <=> 0.0);
        $types = [];
        foreach ($this->epochs as [, $values]) {
            foreach ($values as $satellite => $own) {
                foreach (array_keys($own) as $type) {
                    $types[$satellite[0]][(string) $type] = true;
                }
            }
        }
        foreach ($types as $system => $own) {
            $list = array_map(strval(...), array_keys($own));
            // By band, and of each code, phase and strength.
            usort(
                $list,
                static fn (string $a, string $b): int => [substr($a, 1), strpos('CLDS', $a[0])] <=> [substr($b, 1), strpos('CLDS', $b[0])],
            );
            $f->types[(string) $system] = $list;
        }
        ksort($f->types);
        foreach ($this->epochs as [$time, $values, $lost]) {
            $f->times[] = $time;
            ksort($values);
            foreach ($values as $satellite => $own) {
                $f->satellite[] = (string) $satellite;
                $f->valueStart[] = \count($f->value);
                foreach ($f->types[$satellite[0]] as $type) {
                    $f->value[] = $own[$type] ?? \NAN;
                    $f->lossOfLock[] = $lost[$satellite][$type] ?? 0;
                }
            }
            $f->epochStart[] = \count($f->satellite);
        }
        $this->epochs = [];
    }
}
