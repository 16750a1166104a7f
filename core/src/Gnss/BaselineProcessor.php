<?php

declare(strict_types=1);

namespace Mensura\Gnss;

use Mensura\Fault\UnusableInput;

/** From what two receivers recorded to a baseline: clocks and first positions from codes, then the solution asked for. */
final class BaselineProcessor
{
    public const STATIC = 'static';
    public const CODE = 'code';
    public const KINEMATIC = 'kinematic';
    public const MODES = [self::STATIC, self::KINEMATIC, self::CODE];

    /** Where a stated position of the base misses that of its codes by more, it is not believed, metres. */
    private const ABSURD = 1000.0;

    /** @var list<string> */
    public array $warnings = [];

    /** @var list<float> seconds per epoch */
    private array $baseClock = [];

    /** @var list<float> likewise */
    private array $roverClock = [];

    /** @param ?array{float, float, float, float, float, float, float, float} $klobuchar */
    public function __construct(
        private readonly Session $session,
        private readonly Orbits $orbits,
        private readonly ?array $klobuchar,
        private readonly Options $options,
    ) {
    }

    /**
     * @param ?array{float, float, float} $base     antenna of the base; null takes that of its codes
     * @param bool                        $isStated whether someone stands for it; else an absurd one is replaced
     *
     * @return array{BaselineSolution, array{float, float, float}} the solution, and the antenna of the base it starts from
     *
     * @throws UnusableInput without ephemerides, or with fewer than four satellites
     */
    public function run(string $mode, ?array $base, bool $isStated): array
    {
        $this->ephemerides();
        if ($this->session->halfCycles > 0) {
            $words = '%d phases may be off by half a cycle, as their receiver says; they are not used';
            $this->warnings[] = \sprintf($words, $this->session->halfCycles);
        }
        [$byCodes, $rover] = $this->singlePoints();
        if (null === $base) {
            $base = $byCodes;
            $this->warnings[] = 'the base has no position; that of its codes is used, good to some metres';
        } elseif (Horizon::distance($base, $byCodes) > self::ABSURD) {
            $words = 'the position of the base is %.0f km from where its codes place it; %s';
            $kilometres = Horizon::distance($base, $byCodes) / 1000.0;
            if ($isStated) {
                throw new UnusableInput('--base-position', \sprintf($words, $kilometres, 'correct it, or leave it out'));
            }
            $this->warnings[] = \sprintf($words, $kilometres, 'the header is not believed, that of the codes is used');
            $base = $byCodes;
        }
        // What both have in common of their errors drops out.
        for ($i = 0; $i < 3; ++$i) {
            $rover[$i] += $base[$i] - $byCodes[$i];
        }
        $sights = new Sights($this->session, $this->orbits, $base, $rover, $this->baseClock, $this->roverClock);
        $code = (new CodeTrack($this->session, $sights, $this->options->mask))->solve($rover)
            ?? throw new UnusableInput('', 'no epoch has four common satellites above the mask');
        if (self::CODE === $mode) {
            return [$code, $base];
        }
        if ([] === array_filter($this->session->phase[0], static fn (float $p): bool => !is_nan($p))) {
            $this->warnings[] = 'the two files have no phases in common; the codes alone are solved';

            return [$code, $base];
        }
        $this->toReferencePoints($sights, $base, $code->rover);
        if (self::KINEMATIC === $mode) {
            return [
                (new KinematicBaseline($this->session, $this->orbits, $this->options))
                    ->solve($base, $this->trackOf($code), $this->baseClock, $this->roverClock),
                $base,
            ];
        }
        $solution = (new StaticBaseline($this->session, $this->orbits, $this->options))->solve(
            $base, $code->rover, $this->baseClock, $this->roverClock,
        );

        return [$solution, $base];
    }

    /**
     * Takes out of the phases what they are longer by for being received elsewhere than at the reference points.
     *
     * @param array{float, float, float} $base
     * @param array{float, float, float} $rover
     */
    private function toReferencePoints(Sights $sights, array $base, array $rover): void
    {
        $models = [[$this->options->baseAntenna, Horizon::of($base), -1.0], [$this->options->roverAntenna, Horizon::of($rover), 1.0]];
        $s = $this->session;
        $missing = [];
        foreach ($models as [$model, $horizon, $sense]) {
            if (null === $model) {
                continue;
            }
            foreach ($s->satellite as $i => $satellite) {
                [$azimuth, $elevation] = $horizon->look(
                    $sights->direction[3 * $i], $sights->direction[3 * $i + 1], $sights->direction[3 * $i + 2],
                );
                foreach ([0, 1] as $band) {
                    $name = $satellite[0].'0'.($s->bands[$satellite[0]][$band] ?? '');
                    // A frequency that was not calibrated takes what is nearest: the same band of GPS.
                    $excess = $model->excess($name, $azimuth, $elevation) ?? $model->excess('G0'.substr($name, 2), $azimuth, $elevation)
                        ?? $model->excess('G02', $azimuth, $elevation);
                    if (null === $excess) {
                        $missing[$name] = true;
                        continue;
                    }
                    $s->phase[$band][$i] -= $sense * $excess;
                }
            }
        }
        if ([] !== $missing) {
            $this->warnings[] = 'an antenna is not calibrated for '.implode(', ', array_keys($missing)).'; nothing is taken out there';
        }
        if (null === $this->options->baseAntenna xor null === $this->options->roverAntenna) {
            $this->warnings[] = 'only one of the two antennas is calibrated; heights may be off by centimetres';
        }
    }

    /**
     * The rover at every epoch by its codes; between epochs that have no place the one before.
     *
     * @return list<array{float, float, float}>
     */
    private function trackOf(BaselineSolution $code): array
    {
        $places = [];
        foreach ($code->track as $t) {
            $places[(string) $t['time']] = $t['position'];
        }
        $track = [];
        $last = $code->track[0]['position'] ?? $code->rover;
        foreach ($this->session->times as $time) {
            $last = $places[(string) $time] ?? $last;
            $track[] = $last;
        }

        return $track;
    }

    private function ephemerides(): void
    {
        $missing = $there = [];
        foreach ($this->session->satellite as $i => $satellite) {
            $there[$satellite] ??= false;
        }
        foreach ($this->session->times as $k => $time) {
            for ($i = $this->session->epochStart[$k]; $i < $this->session->epochStart[$k + 1]; ++$i) {
                $satellite = $this->session->satellite[$i];
                $there[$satellite] = $there[$satellite] || $this->orbits->has($satellite, $time);
            }
        }
        foreach ($there as $satellite => $is) {
            if (!$is) {
                $missing[] = $satellite;
            }
        }
        if ([] === array_filter($there)) {
            throw new UnusableInput('--nav', 'no usable ephemeris: the navigation files hold none of the common satellites at that time');
        }
        if (\count($there) - \count($missing) < 4) {
            throw new UnusableInput(
                '--nav',
                \sprintf('fewer than four common satellites have an ephemeris; %s have none', implode(', ', $missing)),
            );
        }
        if ([] !== $missing) {
            $this->warnings[] = \sprintf('left out for want of an ephemeris: %s', implode(', ', $missing));
        }
    }

    /**
     * Clocks of both receivers at every epoch, and the means of their positions.
     *
     * @return array{array{float, float, float}, array{float, float, float}} base, rover
     */
    private function singlePoints(): array
    {
        $point = new SinglePoint($this->orbits, $this->klobuchar);
        $sum = [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0]];
        $near = [null, null];
        $count = 0;
        foreach ($this->session->times as $k => $time) {
            $start = $this->session->epochStart[$k];
            $length = $this->session->epochStart[$k + 1] - $start;
            $satellites = \array_slice($this->session->satellite, $start, $length);
            $found = [];
            foreach ([$this->session->baseCode, $this->session->roverCode] as $which => $codes) {
                $at = 0 === $which ? $time->plus($this->session->tagDifference[$k]) : $time;
                $found[$which] = $point->solve($at, $satellites, \array_slice($codes, $start, $length), $near[$which]);
            }
            $this->baseClock[] = $found[0][1] ?? $this->baseClock[$k - 1] ?? 0.0;
            $this->roverClock[] = $found[1][1] ?? $this->roverClock[$k - 1] ?? 0.0;
            if (null !== $found[0] && null !== $found[1]) {
                ++$count;
                foreach ([0, 1] as $which) {
                    $near[$which] = $found[$which][0];
                    for ($i = 0; $i < 3; ++$i) {
                        $sum[$which][$i] += $found[$which][0][$i];
                    }
                }
            }
        }
        if (0 === $count) {
            throw new UnusableInput('', 'no epoch has four satellites that both receivers observed with an ephemeris');
        }
        $mean = static fn (array $s): array => [$s[0] / $count, $s[1] / $count, $s[2] / $count];

        return [$mean($sum[0]), $mean($sum[1])];
    }
}
