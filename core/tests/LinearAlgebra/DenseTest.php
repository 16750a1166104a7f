<?php

declare(strict_types=1);

namespace Mensura\Tests\LinearAlgebra;

use Mensura\LinearAlgebra\Dense;
use PHPUnit\Framework\TestCase;

final class DenseTest extends TestCase
{
    /** The inverse of the Hilbert matrix of order four is known in whole numbers (Choi 1983, Tricks or treats with the Hilbert matrix). */
    public function testInverseOfTheHilbertMatrix(): void
    {
        $hilbert = [];
        for ($i = 0; $i < 4; ++$i) {
            for ($j = 0; $j < 4; ++$j) {
                $hilbert[$i][$j] = 1.0 / ($i + $j + 1);
            }
        }
        $expected = [[16, -120, 240, -140], [-120, 1200, -2700, 1680], [240, -2700, 6480, -4200], [-140, 1680, -4200, 2800]];
        $inverse = Dense::inverse(array_values(array_map(array_values(...), $hilbert)));
        self::assertNotNull($inverse);
        foreach ($expected as $i => $row) {
            self::assertEqualsWithDelta($row, $inverse[$i], 1e-8);
        }
    }

    public function testSingularAndPivoted(): void
    {
        self::assertNull(Dense::inverse([[1.0, 2.0], [2.0, 4.0]]));
        self::assertNull(Dense::inverse([[0.0]]));
        self::assertSame([[0.0, 1.0], [1.0, 0.0]], Dense::inverse([[0.0, 1.0], [1.0, 0.0]]));
    }

    public function testWhatIsACovariance(): void
    {
        self::assertTrue(Dense::isCovariance([[4.0, 1.0], [1.0, 1.0]]));
        self::assertFalse(Dense::isCovariance([[1.0, 2.0], [2.0, 1.0]]), 'correlation above one');
        self::assertFalse(Dense::isCovariance([[1.0, 0.2], [0.1, 1.0]]), 'not symmetric');
        self::assertFalse(Dense::isCovariance([[1.0, 0.0], [0.0, 0.0]]), 'no variance');
        self::assertFalse(Dense::isCovariance([[1.0, 1.0], [1.0, 1.0]]), 'singular');
        self::assertFalse(Dense::isCovariance([[\NAN]]));
    }
}
