<?php

declare(strict_types=1);

namespace Mensura\Statistics;

/**
 * Normal and chi-square distributions.
 *
 * Regularized incomplete gamma by series and continued fraction (NIST DLMF 8.11.4, 8.9.2);
 * log-gamma by Lanczos' approximation (g = 7, nine coefficients), good to 1e-13; quantiles by Newton
 * steps from the Wilson-Hilferty start (Johnson, Kotz and Balakrishnan, Continuous Univariate Distributions, vol. 1, 18.5).
 */
final class Distribution
{
    private const LANCZOS = [
        0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313,
        -176.61502916214059, 12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
    ];

    public static function logGamma(float $x): float
    {
        if ($x < 0.5) {
            return log(\M_PI / abs(sin(\M_PI * $x))) - self::logGamma(1.0 - $x);
        }
        $x -= 1.0;
        $sum = self::LANCZOS[0];
        for ($i = 1; $i < 9; ++$i) {
            $sum += self::LANCZOS[$i] / ($x + $i);
        }
        $t = $x + 7.5;

        return 0.5 * log(2.0 * \M_PI) + ($x + 0.5) * log($t) - $t + log($sum);
    }

    /** Lower regularized incomplete gamma P(a, x), a > 0, x >= 0. */
    public static function gammaP(float $a, float $x): float
    {
        if ($x <= 0.0) {
            return 0.0;
        }
        $front = exp(-$x + $a * log($x) - self::logGamma($a));
        if ($x < $a + 1.0) {
            $term = $sum = 1.0 / $a;
            for ($n = 1; $n < 100000; ++$n) {
                $term *= $x / ($a + $n);
                $sum += $term;
                if ($term < $sum * 1e-17) {
                    break;
                }
            }

            return $front * $sum;
        }
        $b = $x + 1.0 - $a;
        $c = 1e300;
        $d = 1.0 / $b;
        $h = $d;
        for ($i = 1; $i < 100000; ++$i) {
            $an = -$i * ($i - $a);
            $b += 2.0;
            $d = $an * $d + $b;
            $d = abs($d) < 1e-300 ? 1e-300 : $d;
            $c = $b + $an / $c;
            $c = abs($c) < 1e-300 ? 1e-300 : $c;
            $d = 1.0 / $d;
            $step = $d * $c;
            $h *= $step;
            if (abs($step - 1.0) < 1e-16) {
                break;
            }
        }

        return 1.0 - $front * $h;
    }

    public static function normalCdf(float $z): float
    {
        $p = 0.5 * self::gammaP(0.5, 0.5 * $z * $z);

        return $z < 0 ? 0.5 - $p : 0.5 + $p;
    }

    /** Quantile of the standard normal distribution, 0 < p < 1. */
    public static function normalQuantile(float $p): float
    {
        if (!($p > 0.0 && $p < 1.0)) {
            throw new \DomainException('A probability lies between 0 and 1.');
        }
        if ($p < 0.5) {
            return -self::normalQuantile(1.0 - $p);
        }
        // Abramowitz and Stegun 26.2.23 as a start, then Newton.
        $t = sqrt(-2.0 * log(1.0 - $p));
        $z = $t - (2.515517 + $t * (0.802853 + $t * 0.010328)) / (1.0 + $t * (1.432788 + $t * (0.189269 + $t * 0.001308)));
        for ($i = 0; $i < 20; ++$i) {
            $step = (self::normalCdf($z) - $p) / (exp(-0.5 * $z * $z) / sqrt(2.0 * \M_PI));
            $z -= $step;
            if (abs($step) < 1e-14) {
                break;
            }
        }

        return $z;
    }

    public static function chiSquareCdf(float $x, float $degrees): float
    {
        return self::gammaP(0.5 * $degrees, 0.5 * $x);
    }

    /** Quantile of chi-square, $degrees > 0, 0 < p < 1; relative accuracy 1e-12. */
    public static function chiSquareQuantile(float $p, float $degrees): float
    {
        if (!($p > 0.0 && $p < 1.0 && $degrees > 0.0)) {
            throw new \DomainException('A chi-square quantile needs 0 < p < 1 and at least one degree of freedom.');
        }
        if (2.0 === $degrees) {
            return -2.0 * log1p(-$p);
        }
        $c = 2.0 / (9.0 * $degrees);
        $x = $degrees * (1.0 - $c + self::normalQuantile($p) * sqrt($c)) ** 3;
        if (!($x > 0.0)) {
            $x = 2.0 * exp((log($p) + self::logGamma(0.5 * $degrees + 1.0)) / (0.5 * $degrees));
        }
        $half = 0.5 * $degrees;
        for ($i = 0; $i < 100; ++$i) {
            $density = exp(($half - 1.0) * log($x) - 0.5 * $x - $half * \M_LN2 - self::logGamma($half));
            $step = (self::chiSquareCdf($x, $degrees) - $p) / $density;
            $next = $x - $step;
            $x = $next > 0.0 ? $next : $x / 2.0;
            if (abs($step) < 1e-13 * $x) {
                break;
            }
        }

        return $x;
    }
}
