<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Fault\UnusableInput;
use Mensura\LinearAlgebra\Dense;
use Mensura\Observation\ObservationKind;

/** Variances and weights of the observations as they are used now: square metres, square radians. */
final class Weights
{
    /** @var list<float> per observation, of a vector 0 */
    public array $variance = [];

    /** @var list<float> per scalar observation, 0 when it is not used; of a vector in use 1 */
    public array $weight = [];

    /** @var array<int, list<list<float>>> of the vectors in use, zeros at components set aside */
    public array $matrix = [];

    public function __construct(private readonly NetworkDefinition $network, private readonly ObservationEquations $equations)
    {
    }

    /**
     * @param array{bool, bool, bool} $used
     *
     * @throws UnusableInput no standard deviation, or one that is no number above zero
     */
    public function set(int $i, array $used): void
    {
        $o = $this->network->observations[$i];
        if (ObservationKind::Vector === $o->kind) {
            $this->variance[$i] = 0.0;
            $this->setVector($i, $used);

            return;
        }
        $sd = $this->equations->standardDeviation($o);
        if (null === $sd) {
            throw new UnusableInput(
                $this->network->source($i),
                \sprintf('this %s has no standard deviation; give it an sd or set settings.sigma', $o->kind->value),
            );
        }
        if (!($sd > 0.0) || is_infinite($sd)) {
            throw new UnusableInput($this->network->source($i), \sprintf(
                'the standard deviation of this %s from %s to %s comes out as %s; it must be positive (are both ends at one place?)',
                $o->kind->value, $o->from, $o->to, $sd,
            ));
        }
        $sd *= $o->sdFactor;
        $this->variance[$i] = $sd * $sd;
        $this->weight[$i] = $used[0] ? 1.0 / ($sd * $sd) : 0.0;
    }

    /** @return list<list<float>> */
    public function covariance(int $i): array
    {
        $o = $this->network->observations[$i];

        return null === $o->covariance ? [[$this->variance[$i]]] : self::scaled($o->covariance, $o->sdFactor ** 2);
    }

    /**
     * @param list<list<float>> $covariance
     *
     * @return list<list<float>>
     */
    private static function scaled(array $covariance, float $factor): array
    {
        if (1.0 === $factor) {
            return $covariance;
        }

        return array_map(static fn (array $row): array => array_map(static fn (float $v): float => $v * $factor, $row), $covariance);
    }

    /** @param array{bool, bool, bool} $used */
    private function setVector(int $i, array $used): void
    {
        $o = $this->network->observations[$i];
        $covariance = self::scaled(
            $o->covariance ?? throw new UnusableInput($this->network->source($i), 'this vector has no covariance'), $o->sdFactor ** 2,
        );
        $keep = array_keys(array_filter($used));
        $this->weight[$i] = [] === $keep ? 0.0 : 1.0;
        unset($this->matrix[$i]);
        if ([] === $keep) {
            return;
        }
        $sub = [];
        foreach ($keep as $r) {
            $row = [];
            foreach ($keep as $c) {
                $row[] = $covariance[$r][$c];
            }
            $sub[] = $row;
        }
        $inverse = Dense::inverse($sub);
        if (null === $inverse) {
            throw new UnusableInput(
                $this->network->source($i),
                \sprintf('the covariance of the vector %s to %s is singular', $o->from, $o->to),
            );
        }
        $weight = [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0], [0.0, 0.0, 0.0]];
        foreach ($keep as $a => $r) {
            foreach ($keep as $b => $c) {
                $weight[$r][$c] = $inverse[$a][$b];
            }
        }
        $this->matrix[$i] = $weight;
    }
}
