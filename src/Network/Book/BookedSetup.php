<?php

declare(strict_types=1);

namespace App\Network\Book;

use App\Survey\ObservationRow;
use Mensura\TotalStation\Pointing;
use Mensura\TotalStation\Setup;
use Mensura\TotalStation\Weather;

/** What one instrument set-up of the book holds: pointings in order, each of up to three observations. */
final class BookedSetup
{
    /** @var list<array<string, ObservationRow>> observations of each pointing by kind */
    public array $pointings = [];

    /** @var array<string, int> */
    private array $at = [];

    public function __construct(public readonly string $key, public readonly string $station, public float $hi)
    {
    }

    public function add(ObservationRow $row): void
    {
        // Directions carry no height of the instrument; the zenith angles beside them do.
        if ('direction' !== $row->kind) {
            $this->hi = $row->hi;
        }
        // One line of a file is one pointing; without a line every observation stands alone.
        $place = null === $row->line ? 'o'.$row->id : $row->fileId.':'.$row->line;
        if (!isset($this->at[$place])) {
            $this->at[$place] = \count($this->pointings);
            $this->pointings[] = [];
        }
        $this->pointings[$this->at[$place]][$row->kind] = $row;
    }

    /** @return list<self> one per set of directions */
    public function bySet(): array
    {
        $sets = [];
        foreach ($this->pointings as $pointing) {
            foreach ($pointing as $row) {
                $key = $this->key.'|'.$row->set;
                $sets[$key] ??= new self($key, $this->station, $row->hi);
                $sets[$key]->add($row);
            }
        }

        return array_values($sets);
    }

    /** @return list<self> one per height of the instrument: it was set up again in between */
    public function byHeight(): array
    {
        $heights = [];
        foreach ($this->pointings as $k => $pointing) {
            foreach ($pointing as $row) {
                if ('direction' !== $row->kind) {
                    $heights[$k] = \sprintf('%.4f', $row->hi);
                }
            }
        }
        if (\count(array_unique($heights)) < 2) {
            return [$this];
        }
        $byHeight = [];
        foreach ($this->pointings as $k => $pointing) {
            foreach ($pointing as $row) {
                $key = $this->key.'|'.($heights[$k] ?? reset($heights));
                $byHeight[$key] ??= new self($key, $this->station, $row->hi);
                $byHeight[$key]->add($row);
            }
        }

        return array_values($byHeight);
    }

    /** @return list<int> places of the pointings that have both angles and are used */
    public function reducible(): array
    {
        return array_keys(array_filter(
            $this->pointings,
            static fn (array $p): bool => isset($p['direction'], $p['zenith'])
                && ($p['direction']->used & 1) > 0
                && ($p['zenith']->used & 1) > 0,
        ));
    }

    /** Whether its rounds can be brought together: each sees a target, at the same height, that another sees too. */
    public function isOne(): bool
    {
        $parent = [];
        $find = static function (string $x) use (&$parent): string {
            while (($parent[$x] ??= $x) !== $x) {
                $x = $parent[$x];
            }

            return $x;
        };
        $rounds = [];
        foreach ($this->reducible() as $k) {
            $p = $this->pointings[$k];
            $round = 'r'.$p['direction']->set.'.'.($p['direction']->round ?? 1);
            $rounds[$round] = true;
            $parent[$find($round)] = $find(\sprintf('t%s|%.4f', $p['direction']->to, $p['zenith']->ht));
        }

        return \count(array_unique(array_map($find, array_map(strval(...), array_keys($rounds))))) <= 1;
    }

    /** The mean of the weather recorded with its sights; null where none was. */
    public function recordedWeather(): ?Weather
    {
        $sum = [0.0, 0.0, 0.0];
        $count = 0;
        foreach ($this->pointings as $pointing) {
            $weather = array_values(array_filter(array_column($pointing, 'weather')))[0] ?? null;
            if (null !== $weather) {
                foreach (explode(';', (string) $weather) as $k => $value) {
                    $sum[$k] += (float) $value;
                }
                ++$count;
            }
        }

        return 0 === $count ? null : new Weather($sum[0] / $count, $sum[1] / $count, $sum[2] / $count);
    }

    public function hasFaces(): bool
    {
        foreach ($this->pointings as $pointing) {
            if (2 === ($pointing['direction'] ?? null)?->face) {
                return true;
            }
        }

        return false;
    }

    /** As the instrument read it: in face 2 half a turn on, and the zenith angle back from the full circle. */
    public function core(?Weather $weather, float $prism): Setup
    {
        $pointings = [];
        foreach ($this->reducible() as $k) {
            $p = $this->pointings[$k];
            $isSecond = 2 === $p['direction']->face;
            $distance = $p['slope-distance'] ?? null;
            $pointings[] = new Pointing(
                $p['direction']->set.'.'.($p['direction']->round ?? 1), $isSecond ? 2 : 1, $p['direction']->to, $p['zenith']->ht,
                $p['direction']->v1 + ($isSecond ? 180.0 : 0.0), $isSecond ? 360.0 - $p['zenith']->v1 : $p['zenith']->v1,
                null === $distance || 0 === ($distance->used & 1) ? null : $distance->v1, $prism,
            );
        }

        return new Setup($this->key, $this->station, $this->hi, $weather, $pointings);
    }
}
