<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/**
 * The geometry of a session: per row the direction from the rover to the satellite, its elevation, and what rover less base
 * should be by ranges and troposphere, for a position of the rover.
 */
final class Sights
{
    /** @var list<float> unit vectors towards the satellite, three a row */
    public array $direction = [];

    /** @var list<float> radians, the lower of both receivers; -1 where there is no ephemeris */
    public array $elevation = [];

    /** @var list<float> metres: computed rover less base */
    public array $computed = [];

    /**
     * @param array{float, float, float} $base       antenna
     * @param array{float, float, float} $rover      antenna
     * @param list<float>                $baseClock  receiver clock ahead of GPS time per epoch, seconds
     * @param list<float>                $roverClock likewise
     * @param ?list<array{float, float, float}> $track of a rover that moves: where it is at each epoch
     */
    public function __construct(
        Session $session, Orbits $orbits, array $base, array $rover, array $baseClock, array $roverClock, ?array $track = null,
    ) {
        $b = Horizon::of($base);
        $r = Horizon::of($rover);
        $bt = new Troposphere($b->latitude, $b->height);
        $rt = new Troposphere($r->latitude, $r->height);
        foreach ($session->times as $k => $time) {
            if (null !== $track) {
                $rover = $track[$k];
                $r = Horizon::of($rover);
                $rt = new Troposphere($r->latitude, $r->height);
            }
            $roverTime = $time->plus(-$roverClock[$k]);
            $baseTime = $time->plus($session->tagDifference[$k] - $baseClock[$k]);
            for ($i = $session->epochStart[$k]; $i < $session->epochStart[$k + 1]; ++$i) {
                $satellite = $session->satellite[$i];
                $sr = $orbits->received($satellite, $roverTime, $session->roverCode[$i] - Signal::LIGHT * $roverClock[$k]);
                $sb = $orbits->received($satellite, $baseTime, $session->baseCode[$i] - Signal::LIGHT * $baseClock[$k]);
                if (null === $sr || null === $sb) {
                    array_push($this->direction, 0.0, 0.0, 0.0);
                    $this->elevation[] = -1.0;
                    $this->computed[] = \NAN;
                    continue;
                }
                $x = $sr[0] - $rover[0];
                $y = $sr[1] - $rover[1];
                $z = $sr[2] - $rover[2];
                $range = sqrt($x * $x + $y * $y + $z * $z);
                $bx = $sb[0] - $base[0];
                $by = $sb[1] - $base[1];
                $bz = $sb[2] - $base[2];
                $baseRange = sqrt($bx * $bx + $by * $by + $bz * $bz);
                $up = $r->look($x, $y, $z)[1];
                $baseUp = $b->look($bx, $by, $bz)[1];
                array_push($this->direction, $x / $range, $y / $range, $z / $range);
                $this->elevation[] = min($up, $baseUp);
                // The satellite's clock is read at two instants some microseconds apart.
                $this->computed[] = $range + $rt->delay($up) - Signal::LIGHT * $sr[3]
                    - ($baseRange + $bt->delay($baseUp) - Signal::LIGHT * $sb[3]);
            }
        }
    }
}
