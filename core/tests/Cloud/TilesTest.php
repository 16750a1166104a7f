<?php

declare(strict_types=1);

namespace Mensura\Tests\Cloud;

use Mensura\Cloud\PointBlock;
use Mensura\Exchange\Cloud\Tiles;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\TestCase;

final class TilesTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/tiles-'.bin2hex(random_bytes(4));
    }

    protected function tearDown(): void
    {
        array_map(unlink(...), glob($this->folder.'/*') ?: []);
        @rmdir($this->folder);
    }

    /** The same cloud in one part and in hundreds, which are put aside and joined above: every point once either way. */
    public function testPartsThatDoNotFitInMemoryAreDividedOneByOne(): void
    {
        $scene = new CloudScene(3, 60.0, 12.0, 3.0, 30.0, 0.05, 3, 30, 20);
        $wanted = [];
        foreach ($scene->x as $i => $x) {
            $wanted[] = \sprintf('%.3F %.3F %.3F', $x, $scene->y[$i], $scene->z[$i]);
        }
        sort($wanted);
        foreach ([400_000, 900, 30] as $held) {
            $tiles = new Tiles($this->folder, $held);
            foreach (array_chunk(array_keys($scene->x), 3_001) as $part) {
                $all = new PointBlock($scene->x, $scene->y, $scene->z, array_fill(0, \count($scene->x), 2));
                $tiles->write($all->only($part));
            }
            $tiles->finish();
            $found = TileWalk::points($this->folder);
            sort($found);
            self::assertSame($wanted, $found, "$held");
            $this->tearDown();
        }
    }

    public function testOnePlaceManyTimesEnds(): void
    {
        $tiles = new Tiles($this->folder, 1_000);
        $same = array_fill(0, 30_000, 5.0);
        $tiles->write(new PointBlock($same, $same, $same, array_fill(0, 30_000, 1)));
        $tiles->finish();
        self::assertCount(30_000, TileWalk::points($this->folder));
        $this->expectException(UnusableInput::class);
        (new Tiles($this->folder))->finish();
    }
}
