<?php

declare(strict_types=1);

namespace Mensura\Tests\Network;

use Mensura\Network\Adjustment;
use Mensura\Network\Suspects\Columns;
use Mensura\Network\Suspects\Form;
use Mensura\Network\Suspects\Hypotheses;
use Mensura\Network\Suspects\Hypothesis;
use Mensura\Network\Suspects\LinearModel;
use Mensura\Network\Suspects\Setups;
use Mensura\Network\Suspects\Suspect;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind as Kind;

/** One cause planted in a simulated network: which, how large, and whether a suspect names it. */
final class PlantedCause
{
    public const CAUSES = [
        'target-height', 'instrument-height', 'setup-centring', 'orientation-slip', 'direction', 'zenith', 'distance', 'prism-constant',
        'distance-scale', 'feet', 'swapped-targets', 'wrong-target', 'height-difference-sign', 'height-difference',
        'vector', 'antenna-height',
        'digits', 'control',
    ];

    /** @param array<string, string|int|null> $names */
    private function __construct(
        public readonly string $cause,
        public readonly array $names,
        public readonly ?float $estimate,
    ) {
    }

    public static function in(SimulatedNetwork $network, string $cause, int $seed): ?self
    {
        mt_srand($seed);
        if (\in_array($cause, ['swapped-targets', 'wrong-target'], true)) {
            return self::name($network, $cause);
        }
        $definition = $network->definition();
        $adjustment = new Adjustment($definition);
        $solved = $adjustment->solved($adjustment->run());
        $model = new LinearModel($solved, $solved->state);
        $model->linearize();
        $model->factor();
        $columns = new Columns($solved);
        $tested = ['feet' => 'distance-scale', 'digits' => 'distance', 'height-difference-sign' => 'height-difference'][$cause] ?? $cause;
        $candidates = [];
        foreach ((new Hypotheses($solved, new Setups($solved)))->all() as $hypothesis) {
            if ($hypothesis->cause === $tested) {
                $candidates[] = $hypothesis;
            }
        }
        shuffle($candidates);
        foreach ($candidates as $h) {
            $estimate = $model->estimate($columns->of($h, $model));
            if (null === $estimate) {
                continue;
            }
            $detectable = 0.0;
            foreach ($estimate->covariance as $k => $row) {
                $detectable = max($detectable, 4.13 * sqrt($row[$k]));
            }
            $size = (mt_rand(0, 1) > 0 ? 1.0 : -1.0) * SimulatedNetwork::uniform(1.5, 4.0) * $detectable;
            if (null !== $planted = self::plant($network, $cause, $h, $size)) {
                return $planted;
            }
        }

        return null;
    }

    private static function plant(SimulatedNetwork $network, string $cause, Hypothesis $h, float $size): ?self
    {
        $touched = array_flip($h->touched);
        $add = static fn (float $value): \Closure => static fn (Observation $o, int $i): Observation => isset($touched[$i])
            ? SimulatedNetwork::changed($o, ['value' => (float) $o->value + $value]) : $o;
        $estimate = -$size * $h->unit;
        switch ($cause) {
            case 'feet':
                $estimate = -695200.0;
                $network->record(static fn (Observation $o, int $i): Observation => isset($touched[$i])
                    ? SimulatedNetwork::changed($o, ['value' => round((float) $o->value / 0.3048, 3)]) : $o);
                break;
            case 'distance-scale':
                $network->record(static fn (Observation $o, int $i): Observation => isset($touched[$i])
                    ? SimulatedNetwork::changed($o, ['value' => (float) $o->value * (1.0 + 1e-6 * $size)]) : $o);
                break;
            case 'digits':
                $o = $network->observations[$h->touched[0]];
                $text = number_format((float) $o->value, 3, '.', '');
                $k = mt_rand(1, \strlen($text) - 3);
                if ('.' === $text[$k]) {
                    return null;
                }
                $text[$k] = (string) (((int) $text[$k] + mt_rand(1, 9)) % 10);
                $estimate = (float) $o->value - (float) $text;
                if (abs($estimate) < abs($size)) {
                    return null;
                }
                $network->record($add(-$estimate));
                break;
            case 'height-difference-sign':
                $o = $network->observations[$h->touched[0]];
                if (abs(2.0 * (float) $o->value) < abs($size)) {
                    return null;
                }
                $estimate = 2.0 * (float) $o->value;
                $network->record($add(-$estimate));
                break;
            case 'target-height':
                $network->record(static fn (Observation $o, int $i): Observation => isset($touched[$i])
                    ? SimulatedNetwork::changed($o, ['ht' => $o->targetHeight + $size]) : $o);
                break;
            case 'instrument-height':
                $network->record(static fn (Observation $o, int $i): Observation => isset($touched[$i])
                    ? SimulatedNetwork::changed($o, ['hi' => $o->instrumentHeight + $size]) : $o);
                break;
            case 'setup-centring':
                self::decentre($network, $h, $size);
                $estimate = abs($size);
                break;
            case 'vector':
            case 'antenna-height':
                $estimate = Form::Components === $h->form ? abs($size) : $size;
                $at = SimulatedNetwork::uniform(0, 2 * \M_PI);
                $by = 'vector' === $cause ? [$size * sin($at), $size * cos($at), 0.0] : [0.0, 0.0, $size];
                $network->record(static function (Observation $o, int $i) use ($touched, $by): Observation {
                    if (!isset($touched[$i]) || null === $o->components) {
                        return $o;
                    }

                    return new Observation(
                        Kind::Vector, $o->from, $o->to, null, covariance: $o->covariance,
                        components: [$o->components[0] + $by[0], $o->components[1] + $by[1], $o->components[2] + $by[2]],
                    );
                });
                break;
            case 'control':
                $at = SimulatedNetwork::uniform(0, 2 * \M_PI);
                $network->moveControl((string) $h->names['station'], $size * sin($at), $size * cos($at), 0.0);
                $estimate = abs($size);
                break;
            default:
                $network->record($add($size * $h->unit));
        }

        return new self($cause, $h->names, $estimate);
    }

    /** The instrument stood beside its mark: its sights are those from there. */
    private static function decentre(SimulatedNetwork $network, Hypothesis $h, float $size): void
    {
        $at = SimulatedNetwork::uniform(0, 2 * \M_PI);
        $places = array_column($network->marks, null, 0);
        $touched = array_flip($h->touched);
        $network->record(static function (Observation $o, int $i) use ($touched, $places, $size, $at): Observation {
            if (!isset($touched[$i])) {
                return $o;
            }
            $sight = static function (float $e, float $n) use ($o, $places): float {
                [, $fe, $fn, $fh] = $places[$o->from];
                [, $te, $tn, $th] = $places[$o->to];
                $plan = hypot($te - $fe - $e, $tn - $fn - $n);
                $up = $th + $o->targetHeight - $fh - $o->instrumentHeight;

                return match ($o->kind) {
                    Kind::Direction => rad2deg(atan2($te - $fe - $e, $tn - $fn - $n)),
                    Kind::Zenith => rad2deg(atan2($plan, $up)),
                    default => hypot($plan, $up),
                };
            };

            return SimulatedNetwork::changed(
                $o,
                ['value' => (float) $o->value + $sight($size * sin($at), $size * cos($at)) - $sight(0.0, 0.0)],
            );
        });
    }

    private static function name(SimulatedNetwork $network, string $cause): ?self
    {
        $targets = $heights = [];
        foreach ($network->observations as $o) {
            if (null !== $o->set) {
                $targets[$o->from][$o->to] = true;
                $heights[$o->from][$o->to] = max($heights[$o->from][$o->to] ?? 0.0, $o->targetHeight);
            }
        }
        $from = (string) array_rand($targets);
        $seen = array_map(strval(...), array_keys($targets[$from]));
        if (\count($seen) < 4) {
            return null;
        }
        shuffle($seen);
        [$a, $b] = $seen;
        if ('wrong-target' === $cause) {
            // Sights to a, written as sights to a mark that was not sighted.
            $others = array_diff(array_column($network->marks, 0), $seen, [$from]);
            if ([] === $others) {
                return null;
            }
            $b = $others[array_rand($others)];
            $network->record(static fn (Observation $o): Observation => $o->from === $from && $o->to === $a && null !== $o->set
                ? SimulatedNetwork::changed($o, ['to' => $b]) : $o);

            return new self($cause, ['from' => $from, 'set' => "$from/1", 'to' => $b, 'other' => $a], null);
        }
        $network->record(static function (Observation $o) use ($from, $a, $b, $heights): Observation {
            if ($o->from !== $from || null === $o->set || $o->to !== $a && $o->to !== $b) {
                return $o;
            }
            $other = $o->to === $a ? $b : $a;

            return SimulatedNetwork::changed($o, ['to' => $other, 'ht' => $heights[$from][$other]]);
        });

        return new self($cause, ['from' => $from, 'set' => "$from/1", 'to' => $a, 'other' => $b], null);
    }

    /** True when the suspect is this cause, or one nested with it in the same observation. */
    public function isNamedBy(Suspect $suspect): bool
    {
        $same = [
            'feet' => ['distance-scale'], 'digits' => ['digits', 'distance'], 'distance' => ['distance', 'digits'],
            'height-difference-sign' => ['height-difference-sign', 'height-difference'],
            'height-difference' => ['height-difference', 'height-difference-sign'],
            'antenna-height' => ['antenna-height', 'vector'],
        ][$this->cause] ?? [$this->cause];
        if (!\in_array($suspect->cause, $same, true)) {
            return false;
        }
        if ('swapped-targets' === $this->cause) {
            $mine = [$this->names['to'], $this->names['other']];
            $theirs = [$suspect->names['to'] ?? null, $suspect->names['other'] ?? null];
            sort($mine);
            sort($theirs);

            return $mine === $theirs && $suspect->names['from'] === $this->names['from'];
        }
        foreach ($this->names as $key => $value) {
            if ('end' !== $key && ($suspect->names[$key] ?? null) !== $value) {
                return false;
            }
        }

        return true;
    }
}
