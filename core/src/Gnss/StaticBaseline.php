<?php

declare(strict_types=1);

namespace Mensura\Gnss;

use Mensura\Fault\UnusableInput;

/** A baseline between two receivers that stood still: float, integers where they are sure, and honest precision. */
final class StaticBaseline
{
    /** What remains beside the formal precision, metres and parts of the line: plan, up. */
    private const FLOOR = [[0.0008, 0.3e-6], [0.0015, 0.8e-6]];

    /** Beyond this, and so many parts per million of the line, residuals of a fixed solution say that the integers are wrong, metres. */
    private const MOST_RMS = 0.015;

    /** From so near, ranges are straight to nanometres and the troposphere to a tenth of a millimetre, metres. */
    private const NEAR = 0.3;

    /** Integers must carry so much of the session: a part of it alone says nothing of a receiver that moved in the other. */
    private const LEAST_COVERAGE = 0.8;

    public function __construct(private readonly Session $session, private readonly Orbits $orbits, private readonly Options $options)
    {
    }

    /**
     * @param array{float, float, float} $base       antenna
     * @param array{float, float, float} $rover      antenna, within some metres
     * @param list<float>                $baseClock  seconds per epoch
     * @param list<float>                $roverClock likewise
     *
     * @throws UnusableInput when there is not enough to determine it
     */
    public function solve(array $base, array $rover, array $baseClock, array $roverClock): BaselineSolution
    {
        $length = Horizon::distance($base, $rover);
        [$arcs, $left, $float] = $this->float($base, $rover, $baseClock, $roverClock, $length);
        for ($k = 0; $k < 2 && Horizon::distance([0.0, 0.0, 0.0], $float->shift) > self::NEAR; ++$k) {
            $rover = [$rover[0] + $float->shift[0], $rover[1] + $float->shift[1], $rover[2] + $float->shift[2]];
            [$arcs, $left, $float] = $this->float($base, $rover, $baseClock, $roverClock, $length);
        }
        $at = $rover;
        $rover = [$at[0] + $float->shift[0], $at[1] + $float->shift[1], $at[2] + $float->shift[2]];
        $solution = new BaselineSolution();
        $solution->rover = $rover;
        $solution->covariance = self::corner($float->q);
        $fix = new IntegerFix($float);
        $solution->ratio = $fix->ratio;
        $coverage = $fix->coverage($this->session, $arcs);
        if ($fix->isFixed() && $coverage < self::LEAST_COVERAGE) {
            $words = 'integers are found for %.0f %% of the session only; a receiver may have moved, the solution stays float';
            $solution->warnings[] = \sprintf($words, 100.0 * $coverage);
        } elseif ($fix->isFixed()) {
            $solution->rover = [$at[0] + $fix->x[0], $at[1] + $fix->x[1], $at[2] + $fix->x[2]];
            $solution->covariance = self::corner($fix->q);
            $solution->solution = BaselineSolution::FIXED;
        }
        $sights = new Sights($this->session, $this->orbits, $base, $solution->rover, $baseClock, $roverClock);
        $residuals = new Residuals(
            $this->session, $sights, $arcs, $left, Atmosphere::over($length, $this->options->isFree),
            $float->ambiguities(BaselineSolution::FIXED === $solution->solution ? $fix->x : $float->x),
        );
        $solution->rms = $residuals->rms;
        $x = BaselineSolution::FIXED === $solution->solution ? $fix->x : $float->x;
        $steadiness = new Steadiness($this->session, $float, $x, $at);
        $why = match (true) {
            $residuals->steady > self::MOST_RMS + 1e-6 * $length => \sprintf(
                'the residuals are %.0f mm, too large for the integers found', 1000.0 * $residuals->steady,
            ),
            $steadiness->isMoved($length) => \sprintf(
                'parts of the session lie %.0f mm apart in plan and %.0f mm in height', 1000.0 * $steadiness->plan,
                1000.0 * $steadiness->up,
            ),
            default => null,
        };
        if (BaselineSolution::FIXED === $solution->solution && null !== $why) {
            $solution->solution = BaselineSolution::FLOAT;
            $solution->rover = $rover;
            $solution->covariance = self::corner($float->q);
            $solution->warnings[] = $why.'; a receiver may have moved, the solution stays float';
        }
        self::honest($solution, $residuals, $length, max(1.0, $steadiness->factor));
        $solution->satellites = $arcs->tally($left);
        foreach ($residuals->byArc as $a => $values) {
            $arc = $arcs->arcs[$a];
            $signal = $arc['satellite'].($residuals->isFree ? ' LC' : (0 === $arc['band'] ? ' L1' : ' L2'));
            $solution->residuals[$signal] = ($solution->residuals[$signal] ?? []) + $values;
        }
        ksort($solution->residuals);
        $solution->epochs = \count($this->session->times);
        $solution->start = $this->session->times[0];
        $solution->end = $this->session->times[$solution->epochs - 1];

        return $solution;
    }

    /**
     * @param array{float, float, float} $base
     * @param array{float, float, float} $rover
     * @param list<float>                $baseClock
     * @param list<float>                $roverClock
     *
     * @return array{Arcs, array<int, true>, FloatSolution} arcs, those too short, and the solution about the rover
     */
    private function float(array $base, array $rover, array $baseClock, array $roverClock, float $length): array
    {
        $sights = new Sights($this->session, $this->orbits, $base, $rover, $baseClock, $roverClock);
        $arcs = new Arcs($this->session, $sights, $this->options->mask);
        $left = $arcs->tooShort();
        $atmosphere = Atmosphere::throughout($length, $this->options->isFree, $this->session->times);
        $float = new FloatSolution($this->session, $sights, $arcs, $atmosphere, $left);
        if (!$float->solve()) {
            throw new UnusableInput('', 'there are not enough common satellites to determine the baseline');
        }

        return [$arcs, $left, $float];
    }

    /** What the formal precision leaves out: residuals that hang together in time, and what grows with the line. */
    private static function honest(BaselineSolution $solution, Residuals $residuals, float $length, float $between): void
    {
        // What the atmosphere does for twenty minutes at a time is in the weights already: only the noise's own correlation is added.
        [$ionosphere, $air] = Atmosphere::over($length, false)->variances(\M_PI / 2.0);
        $noise = FloatSolution::variance(true, \M_PI / 2.0);
        $inflation = 1.0 + ($residuals->inflation - 1.0) * $noise / ($noise + $ionosphere + $air);
        $solution->covariance = Horizon::of($solution->rover)->widened(
            $solution->covariance, max(1.0, $residuals->factor, $between / $inflation) * $inflation,
            self::FLOOR[0][0] + self::FLOOR[0][1] * $length, self::FLOOR[1][0] + self::FLOOR[1][1] * $length,
        );
    }

    /**
     * @param list<list<float>> $q
     *
     * @return list<list<float>>
     */
    private static function corner(array $q): array
    {
        return array_map(static fn (array $row): array => \array_slice($row, 0, 3), \array_slice($q, 0, 3));
    }
}
