<?php

declare(strict_types=1);

namespace Demo;

/**
 * A slab of concrete with a crown, as it was designed (quads in a drawing) and as it was measured: its south-east corner too low,
 * a ridge along the joint, and a pillar that was measured with it.
 */
final class Slab
{
    public const DESIGN = 'slab-b2.dxf';
    public const SCAN = 'slab-b2-scan.csv';
    public const CODE = 'SLAB';
    public const WEST = 493420.0;
    public const SOUTH = 6028214.0;
    public const WIDTH = 24.0;
    public const DEPTH = 20.0;
    public const CROWN = 0.016;
    /** Metres that the corner is low. */
    public const LOW = 0.0141;
    private const TOP = 228.640;
    private const QUAD = 2.0;
    private const STEP = 0.9;
    /** Metres about the corner that are low. */
    private const REACH = 5.5;
    private const PILLAR = [493429.0, 6028220.0, 0.7];

    public static function height(float $e): float
    {
        return self::TOP - self::CROWN * abs($e - self::WEST - 0.5 * self::WIDTH);
    }

    /** An ASCII DXF of release AC1009: quads as 3DFACE on one layer, the outline on another. */
    public function design(): string
    {
        $text = "0\nSECTION\n2\nHEADER\n9\n\$ACADVER\n1\nAC1009\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n";
        for ($n = 0.0; $n < self::DEPTH; $n += self::QUAD) {
            for ($e = 0.0; $e < self::WIDTH; $e += self::QUAD) {
                $text .= "0\n3DFACE\n8\nSLAB-TOP\n";
                foreach ([[0.0, 0.0], [self::QUAD, 0.0], [self::QUAD, self::QUAD], [0.0, self::QUAD]] as $k => [$de, $dn]) {
                    $x = self::WEST + $e + $de;
                    $text .= \sprintf(
                        "%d\n%.4F\n%d\n%.4F\n%d\n%.4F\n", 10 + $k, $x, 20 + $k, self::SOUTH + $n + $dn, 30 + $k, self::height($x),
                    );
                }
            }
        }

        return $text."0\nENDSEC\n0\nEOF\n";
    }

    /** Points as they were measured, SL-001 and following. */
    public function scan(): string
    {
        $random = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar(TruthModel::SEED));
        $noise = static fn (): float => 0.0028 * ($random->getInt(-1000, 1000) + $random->getInt(-1000, 1000)) / 1000.0;
        $text = "# Slab B2, measured 4 May 2031. Simulated.\npoint,easting [m],northing [m],ellipsoidal height [m],code\n";
        $number = 0;
        for ($n = 0.3; $n < self::DEPTH; $n += self::STEP) {
            for ($e = 0.3; $e < self::WIDTH; $e += self::STEP) {
                $x = self::WEST + $e;
                $y = self::SOUTH + $n;
                $corner = hypot(self::WIDTH - $e, $n);
                $off = $corner < self::REACH ? -self::LOW * (1.0 - $corner / self::REACH) ** 0.7 : 0.0;
                $off += abs($e - 0.5 * self::WIDTH) < 0.5 && $n > 5.0 ? 0.0055 : 0.0;
                $isPillar = hypot($x - self::PILLAR[0], $y - self::PILLAR[1]) < self::PILLAR[2];
                $h = self::height($x) + ($isPillar ? 1.2 + 0.02 * $noise() : $off + $noise());
                $text .= \sprintf("SL-%03d,%.3F,%.3F,%.4F,%s\n", ++$number, $x, $y, $h, self::CODE);
            }
        }

        return $text;
    }
}
