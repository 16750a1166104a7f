<?php

declare(strict_types=1);

namespace Demo\Gnss;

use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\SessionOf;
use Mensura\Gnss\BaselineProcessor;
use Mensura\Gnss\Horizon;
use Mensura\Gnss\Options;
use Mensura\Gnss\Orbits;

/**
 * One static session made up by its seed, solved and held against its truth: 200 m to 15 km, a quarter of an hour to an hour,
 * one or two systems and bands, an obstruction, a slip, the ionosphere apart by up to 1.5 ppm; every tenth receiver moved.
 */
final readonly class Trial
{
    public const BASE = [3901600.0, 300100.0, 5020020.0];

    private function __construct(
        public int $seed, public string $solution, public float $length, public int $epochs, public float $interval,
        public ?float $ratio, public float $off, public float $sigma, public float $moved,
    ) {
    }

    public static function of(int $seed): self
    {
        $dice = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar(9000 + $seed));
        $one = static fn (): float => $dice->getInt(0, 1_000_000) / 1e6;
        $length = 200.0 * 75.0 ** $one();
        $bearing = 2.0 * \M_PI * $one();
        $isMoved = $one() < 0.1;
        $rover = Horizon::of(self::BASE)->shifted(self::BASE, $length * sin($bearing), $length * cos($bearing), 60.0 * ($one() - 0.5));
        $interval = [10.0, 15.0, 30.0][$dice->getInt(0, 2)];
        $epochs = (int) ((900.0 + 2700.0 * $one()) / $interval);
        $sky = new Sky($seed, systems: $one() < 0.5 ? 'G' : 'GE');
        $types = $one() < 0.8 ? Receiver::EVERYTHING : ['G' => ['C1C', 'L1C', 'S1C'], 'E' => ['C1C', 'L1C', 'S1C']];
        $tree = 360.0 * $one();
        $shift = [0.02, 0.05, 0.19, 0.3][$dice->getInt(0, 3)];
        $there = Horizon::of($rover)->shifted($rover, $shift, 0.3 * $shift, -0.1 * $shift);
        $at = $dice->getInt(intdiv($epochs, 4), intdiv(3 * $epochs, 4));
        $ids = array_keys($sky->satellites);
        $slips = [$ids[$dice->getInt(0, \count($ids) - 1)] => $dice->getInt(3, $epochs - 2)];
        $r = new Receiver(
            'R', $isMoved ? static fn (int $k): array => $k < $at ? $rover : $there : $rover, $epochs, $interval, 1e-4 * ($one() - 0.5),
            $types, 4.0 + 1e-6 * $length * ($one() - 0.5) * 3.0, slips: $slips, obstructed: [[$tree, $tree + 90.0, 45.0 * $one()]],
        );
        $b = new Receiver('B', self::BASE, $epochs, $interval, 1e-4 * ($one() - 0.5), $types);
        $session = SessionOf::of(
            ObservationReader::read($sky->observations($b), 'b'), ObservationReader::read($sky->observations($r), 'r'), 'b', 'r',
        );
        $orbits = new Orbits(NavigationReader::read($sky->navigation(), 'n')->ephemerides);
        $processor = new BaselineProcessor($session, $orbits, null, new Options(deg2rad(10.0)));
        $solution = $processor->run(BaselineProcessor::STATIC, self::BASE, true)[0];
        $q = $solution->covariance;

        return new self(
            $seed, $solution->solution, $length, $epochs, $interval, $solution->ratio, Horizon::distance($solution->rover, $rover),
            sqrt($q[0][0] + $q[1][1] + $q[2][2]), $isMoved ? $shift : 0.0,
        );
    }

    /** Integers that were accepted and are not the right ones. */
    public function isWrong(): bool
    {
        return 0.0 === $this->moved && 'fixed' === $this->solution && $this->off > 0.05 + 3e-6 * $this->length;
    }

    /** A stated precision that does not cover what is wrong. */
    public function isBeyond(): bool
    {
        return 0.0 === $this->moved && $this->off > 3.0 * $this->sigma;
    }

    /** A receiver that moved, dressed up as one that stood. */
    public function isDressedUp(): bool
    {
        return $this->moved > 0.0 && 'fixed' === $this->solution && 3.0 * $this->sigma < 0.5 * $this->moved;
    }
}
