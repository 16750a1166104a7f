<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\Dxf\DxfEntity;
use Mensura\Exchange\Dxf\DxfWriter;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\TestCase;

/** Reading back; unrelated programs open the same drawings in the tests of hand-over. */
final class DxfTest extends TestCase
{
    public function testWhatIsWrittenReadsBack(): void
    {
        $dxf = new DxfWriter();
        $dxf->layer('POINTS', 1);
        $dxf->point('POINTS', 493120.4123, 6028061.2384, 236.418);
        $dxf->text('NAMES', 1.0, 2.0, 3.0, 0.5, 'Größe 5');
        $dxf->polyline3d('edge of works', [[0.0, 0.0, 1.0], [10.0, 0.0, 2.0], [10.0, 10.0, 3.0]], true);
        $dxf->contour('C', [[0.0, 0.0], [5.0, 5.0]], 225.5);
        [$point, $text, $edge, $contour] = Drawings::entities($dxf);
        self::assertEquals(new DxfEntity('point', 'POINTS', [[493120.4123, 6028061.2384, 236.418]]), $point);
        self::assertSame('Größe 5', $text->text);
        self::assertSame(['edge_of_works', 'C'], [$edge->layer, $contour->layer]);
        self::assertSame([[0.0, 0.0, 225.5], [5.0, 5.0, 225.5]], $contour->vertices);
        self::assertSame([20.0, hypot(5.0, 5.0)], [$edge->planLength(), $contour->planLength()]);
    }

    public function testACutOffDrawingIsNamed(): void
    {
        $dxf = new DxfWriter();
        $dxf->point('P', 1.0, 2.0, 3.0);
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage('the DXF file is cut off');
        Drawings::entities(substr(Drawings::text($dxf), 0, -200));
    }
}
