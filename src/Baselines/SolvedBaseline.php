<?php

declare(strict_types=1);

namespace App\Baselines;

use Mensura\Gnss\BaselineSolution;
use Mensura\Gnss\GpsTime;
use Mensura\Gnss\Horizon;

/** A baseline as it was solved, from marker to marker. Metres, geocentric. */
final readonly class SolvedBaseline
{
    /** @var array{float, float, float} marker of the rover */
    public array $to;

    /**
     * @param list<GpsTime>              $times    of the epochs in common
     * @param array{float, float, float} $from     marker of the base
     * @param \Closure(array{float, float, float}): array{float, float, float} $marker from a place of the rover's antenna to its marker
     * @param list<string>               $warnings
     * @param string                     $baseFrom where the place of the base is from, in words
     */
    public function __construct(
        public BaselineSolution $solution, public array $times, public array $from, public \Closure $marker, public array $warnings,
        public string $baseFrom,
    ) {
        $this->to = $marker($solution->rover);
    }

    /** @return array{float, float, float} */
    public function vector(): array
    {
        return [$this->to[0] - $this->from[0], $this->to[1] - $this->from[1], $this->to[2] - $this->from[2]];
    }

    /** @return array<string, mixed> figures shown without opening the rest */
    public function summary(): array
    {
        $s = $this->solution;
        $local = Horizon::of($this->to)->turned($s->covariance);
        $used = array_filter($s->satellites, static fn (array $sat): bool => $sat['used']);

        return [
            'solution' => $s->solution, 'ratio' => $s->ratio, 'rms' => $s->rms, 'vector' => $this->vector(), 'covariance' => $s->covariance,
            'length' => Horizon::distance($this->from, $this->to), 'sdPlan' => sqrt(
                $local[0][0] + $local[1][1],
            ), 'sdUp' => sqrt($local[2][2]),
            'epochs' => $s->epochs, 'from' => $s->start?->sinceEpoch(), 'to' => $s->end?->sinceEpoch(), 'satellites' => \count($used),
            'slips' => array_sum(array_column($s->satellites, 'slips')), 'basePlace' => $this->from, 'place' => $this->to,
            'baseFrom' => $this->baseFrom, 'warnings' => $this->warnings,
        ];
    }

    /** @return array<string, mixed> what is opened when it is looked at: satellites, and residuals in millimetres */
    public function document(): array
    {
        $first = $this->times[0];
        $residuals = [];
        foreach ($this->solution->residuals as $signal => $values) {
            ksort($values);
            $residuals[] = [
                'signal' => $signal,
                'seconds' => array_map(fn (int $k): float => round($this->times[$k]->since($first), 2), array_keys($values)),
                'mm' => array_map(static fn (float $v): float => round(1000.0 * $v, 1), array_values($values)),
            ];
        }
        $satellites = [];
        foreach ($this->solution->satellites as $id => $about) {
            $satellites[] = ['id' => $id] + $about;
        }

        return ['first' => $first->sinceEpoch(), 'satellites' => $satellites, 'residuals' => $residuals];
    }
}
