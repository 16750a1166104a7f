<?php

declare(strict_types=1);

namespace App\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;

/** A photo flight as a new user meets it: adjusted, control marked in the images, an orthoimage made and handed over. */
final class FlightsTest extends OfficeTestCase
{
    public static function setUpBeforeClass(): void
    {
        self::$office = new Office();
        self::$office->console('mensura:demo', '--flight=files');
        self::$office->startWorker();
        self::$office->signIn();
    }

    public function testFromImagesToAnOrthoimage(): void
    {
        $o = self::$office;
        $o->go('/');
        $o->see('Kestrel field flight');
        $o->go('/p/2/clouds?page=flights');
        $o->see('field, May: 6 images, not adjusted yet');
        $o->see('the next image shows');
        $o->click('[data-test=adjust-flight]');
        $o->see('The images agree; control is not marked yet', 120.0);
        $o->click('[data-test=view-images]');
        // Where each should be is shown: three control points, one of them at the edge, and a check point.
        foreach (['FP1' => 2, 'FP2' => 1, 'FP5' => 2, 'FK4' => 2] as $point => $count) {
            $o->choose('[data-test=mark-point]', $point.' ');
            $o->see('it should be seen within the circle');
            for ($which = 0; $which < $count; ++$which) {
                $o->click('[data-test=mark-image]');
                $o->settle();
                $options = array_values(array_filter(
                    $o->driver->findElements(WebDriverBy::cssSelector('.el-select-dropdown__item')),
                    static fn ($e): bool => $e->isDisplayed() && str_contains($e->getText(), 'field-'),
                ));
                self::assertGreaterThanOrEqual($count, \count($options), $point);
                $options[$which]->click();
                $o->settle();
                $o->click('[data-test=mark-view]');
                $o->see('marked at');
            }
        }
        $o->see('7 marks of 4 points');
        $o->click('[data-test=adjust-flight]');
        $o->see('3 control points hold it', 120.0);
        $o->see('Check points agree to');
        $o->click('[data-test=make-ortho]');
        $o->find('[data-test=ortho-picture]', 120.0);
        $o->see('Made of it');
        $o->click('[data-test=write-ortho]');
        $o->see('Written and read back', 60.0);
        self::assertSame([], $o->complaints());
    }

    /** Images of a rover: a place picked in one is found in the others, a ray is taken away, the place kept; dense points as a cloud. */
    public function testPickedInImages(): void
    {
        $o = self::$office;
        $o->go('/p/2/clouds?page=images');
        $o->see('barn, front: 4 images, not oriented yet');
        $o->click('[data-test=orient]');
        $o->see('The images agree: pick a place in one of them', 120.0);
        $o->see('4 of 4 images joined');
        // The middle of the image shows the wall between the windows.
        $o->click('[data-test=pick-view]');
        $o->see('4 rays meet; the place is known to', 30.0);
        self::assertCount(4, $o->driver->findElements(WebDriverBy::cssSelector('[data-test=strip] .found')));
        $o->click('[data-test="remove-barn-front-06.jpg"]');
        $o->see('3 rays meet');
        self::assertCount(3, $o->driver->findElements(WebDriverBy::cssSelector('[data-test=strip] .found')));
        // Put where it is off the others, a ray is named.
        $o->click('[data-test="image-barn-front-06.jpg"]');
        $o->click('[data-test=pick-view]');
        $o->see('The ray of barn-front-06.jpg speaks against the others');
        $o->click('[data-test="remove-barn-front-06.jpg"]');
        $o->see('3 rays meet');
        $o->type('[data-test=ray-name]', 'W1');
        $o->type('[data-test=ray-code]', 'WALL');
        $o->click('[data-test=keep-rays]');
        $o->see('W1 is a point');
        $o->click('[data-test=dense]');
        $o->click('[data-test=dense-one]');
        $o->find('[data-test=cloud-words]', 120.0);
        $o->see('images of barn, front');
        self::assertSame([], $o->complaints());
    }
}
