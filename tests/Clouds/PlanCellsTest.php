<?php

declare(strict_types=1);

namespace App\Tests\Clouds;

use App\Clouds\Pass\PlanCells;
use App\Store\StoreFault;
use PHPUnit\Framework\TestCase;

/** A scan by where its points lie: what is near is read, and nothing of the rest; a damaged piece is said. */
final class PlanCellsTest extends TestCase
{
    private string $path;

    protected function setUp(): void
    {
        $this->path = sys_get_temp_dir().'/mensura-cells-'.bin2hex(random_bytes(4));
    }

    protected function tearDown(): void
    {
        @unlink($this->path);
    }

    public function testWhatIsNearIsReadAsItWasWritten(): void
    {
        // Across the origin, where the columns of cells change sign.
        $blocks = [
            [[1.0, 2.0, 3.0], [-0.5, 0.5, 40.0], [-0.25, 0.25, 8.0], [5.0, 6.0, 7.0], [100, 200, 65_535]],
            [[4.0], [0.75], [1.5], [8.0], []],
        ];
        $pieces = PlanCells::write($blocks, $this->path);
        $near = PlanCells::near($this->path, $pieces, [-1.0, -1.0, 1.0, 2.0]);
        self::assertSame([[1.0, 2.0, 4.0], [-0.5, 0.5, 0.75], [-0.25, 0.25, 1.5], [5.0, 6.0, 8.0], [100.0, 200.0, 0.0]], $near);
        self::assertSame([[3.0], [40.0], [8.0], [7.0], [65_535.0]], PlanCells::near($this->path, $pieces, [39.0, 7.0, 43.0, 11.0]));
        self::assertSame([[], [], [], [], []], PlanCells::near($this->path, $pieces, [900.0, 900.0, 910.0, 910.0]));
    }

    public function testOfVeryManyAsManyAsAPictureNeeds(): void
    {
        $n = 32_000;
        $axis = array_fill(0, $n, 1.0);
        $times = array_map(floatval(...), range(1, $n));
        $pieces = PlanCells::write([[$times, $axis, $axis, $axis, []]], $this->path);
        [$kept] = PlanCells::near($this->path, $pieces, [0.0, 0.0, 2.0, 2.0]);
        // All of the first 4,000, then half of as many more, a quarter of twice as many, an eighth of four times as many.
        self::assertCount(4_000 + 2_000 + 2_000 + 2_000, $kept);
        self::assertSame([1.0, 4_000.0, 32_000.0], [$kept[0], $kept[3_999], end($kept)]);
    }

    public function testADamagedPieceIsSaid(): void
    {
        $pieces = PlanCells::write([[[1.0], [1.0], [1.0], [1.0], []]], $this->path);
        file_put_contents($this->path, 'x'.substr((string) file_get_contents($this->path), 1));
        $this->expectException(StoreFault::class);
        PlanCells::near($this->path, $pieces, [0.0, 0.0, 2.0, 2.0]);
    }
}
