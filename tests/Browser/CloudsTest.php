<?php

declare(strict_types=1);

namespace App\Tests\Browser;

use Demo\Yard;
use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\WebDriverBy;
use Symfony\Component\Process\Process;

/** Clouds as a new user meets them: brought in, cropped, classified, a point picked, and published for others. */
final class CloudsTest extends OfficeTestCase
{
    public function testACloudIsBroughtInCroppedClassifiedAndPublished(): void
    {
        $o = self::$office;
        $path = $o->folder.'/second-scan.las';
        file_put_contents($path, (new Yard())->scan()."\0");
        $o->go('/p/1/intake');
        $o->bring($path);
        $o->see('second-scan.las', 30.0);
        $o->click('[data-test=accept]');
        $o->see('36 files', 30.0);
        $o->go('/p/1/clouds');
        $o->see('to a square metre, 0.104 m apart.');
        $o->find('[data-test=cloud-space] canvas');
        $o->see('Came in, not looked at yet');
        $buttons = $o->driver->findElements(WebDriverBy::cssSelector('[data-test^=make-of-]'));
        self::assertNotEmpty($buttons);
        $buttons[array_key_last($buttons)]->click();
        $o->see('second-scan.las ·');
        $o->type('[data-test=cloud-name]', 'office corner');
        $o->click('[data-test=cloud-crop]');
        $o->see('Click the corners of what is cropped');
        $map = $o->find('.map[data-drawn]');
        foreach ([[-120, -100], [-20, -100], [-20, 60], [-120, 60], [-120, -100]] as [$x, $y]) {
            (new WebDriverActions($o->driver))->moveToElement($map, $x, $y)->click()->perform();
            usleep(400_000); // A hand's pace: two clicks at once would be a double click.
        }
        $o->see('keep inside');
        $o->click('[data-test=cloud-ground]');
        $o->click('[data-test=make-cloud]');
        $o->see('office corner', 60.0);
        $o->see('cropped, ground found', 60.0);
        self::assertSame([], $o->complaints());

        $o->choose('[data-test=colour-by]', 'class');
        $this->pick();
        $o->see(' E ');
        $o->type('[data-test=pick-name]', 'T7');
        $o->click('[data-test=keep-pick]');
        $o->see('T7 is a point.');
        $o->click('[data-test=view-map]');
        $o->click('[data-test=cut-cloud]');
        $o->see('Click along the line');
        $map = $o->find('.map[data-drawn]');
        foreach ([[-60, -60], [40, 40], [40, 40]] as [$x, $y]) {
            (new WebDriverActions($o->driver))->moveToElement($map, $x, $y)->click()->perform();
            usleep(400_000);
        }
        $o->see('looked at from the right of the line', 30.0);
        $o->click('.strip .plot');
        $o->see(' along, height ');

        $o->click('[data-test=hand-over]');
        $o->click('[data-test=cloud-site]');
        $o->see('Written and read back', 60.0);
        self::assertSame([], $o->complaints());
    }

    public function testAPassIsLaidOntoAnotherAfterAPickedPairAndSeenAcrossTheWay(): void
    {
        $o = self::$office;
        $o->go('/p/1/clouds');
        $o->click('[data-test=clouds-passes]');
        $o->see('Both drives agree to', 30.0);
        $o->see('village-up.csv was compared with village, down v1 at 8 places');
        $o->find('[aria-label="Both scans across the way"] svg');
        $o->click('[data-test=new-pass]');
        $o->type('[data-test=pass-name]', 'village, with a pair');
        $o->click('[data-test=pass-picked]');
        foreach (['-0.2', '0.1', '0'] as $k => $part) {
            $o->type("#pass-shift-$k", $part);
        }
        $o->click('[data-test=align-pass]');
        $o->see('A picked pair moved it 0.224 m first.', 60.0);
        $o->see('Both drives agree to', 30.0);
        // Moved by six metres first, they are too far apart; a pair picked in the section brings them together.
        $o->click('[data-test=change-pass]');
        foreach (['6', '6', '0'] as $k => $part) {
            $o->type("#pass-shift-$k", $part);
        }
        $o->click('[data-test=align-pass]');
        $o->see('The drives are too far apart', 120.0);
        $o->click('[data-test=pick-pair]');
        $o->see('Click a place of village-up.csv');
        $o->settle();
        $o->click('.across .plot');
        $o->see('Now the same place of village, down v1');
        $o->click('.across .plot');
        $o->see('along the way a section says nothing');
        $o->click('[data-test=align-pair]');
        $o->see('Both drives agree to', 120.0);
        $o->click('[data-test=scan-again]');
        $o->see('The scan by version 3 is the cloud village, with a pair.', 60.0);
        $o->click('[data-test=view-map]');
        $o->see('section');
        $o->click('[data-test=write-trajectory]');
        $o->see('Written and read back', 60.0);
        self::assertSame([], $o->complaints());
    }

    public function testADriveIsRegisteredToControlThatIsMarkedInItsScan(): void
    {
        $o = self::$office;
        $o->go('/p/1/clouds?page=passes');
        $o->click('[data-test=new-pass]');
        $o->choose('[data-test=pass-trajectory]', 'village-down.csv');
        $o->choose('[data-test=pass-stays]', 'control points alone');
        $o->type('[data-test=pass-name]', 'village, marked here');
        $o->click('[data-test=align-pass]');
        $o->see('As it was driven: no control point is marked in its scan yet', 60.0);
        foreach (['VT1', 'VT3', 'VK1'] as $n => $mark) {
            $o->choose('[data-test=mark-point]', "$mark, ");
            $plot = $o->find("[aria-label='The scan around $mark from above'] svg path[fill='rgb(0,128,128)']");
            $o->settle();
            $o->driver->action()->moveToElement($plot)->click()->perform();
            $o->see('Marked '.implode(', ', \array_slice(['VT1', 'VT3', 'VK1'], 0, $n + 1)));
        }
        $o->click('[data-test=align-marks]');
        $o->see('Check points agree to', 60.0);
        $o->see('Version 2 of its trajectory is in use');
        $o->see('2 control sightings:');
        self::assertSame([], $o->complaints());
    }

    /** The folder shows itself with nothing of ours running: from any web server, and opened from a disk. */
    public function testAPublishedCloudIsShownWithoutUs(): void
    {
        $o = self::$office;
        $o->go('/p/1/clouds?cloud=1');
        $o->find('[data-test=cloud-space] canvas');
        $o->click('[data-test=hand-over]');
        $o->click('[data-test=cloud-site]');
        $o->see('Written and read back', 60.0);
        $site = $o->folder.'/site';
        $zip = new \ZipArchive();
        self::assertTrue($zip->open($this->newest($o->folder.'/store')));
        $zip->extractTo($site);
        $zip->close();
        $port = Office::freePort();
        $server = new Process(['/usr/bin/python3', '-m', 'http.server', (string) $port, '--bind', '127.0.0.1', '-d', $site]);
        $server->start();
        try {
            foreach (["http://127.0.0.1:$port/" => 'all of it', "file://$site/index.html" => 'Opened from a disk'] as $address => $says) {
                $o->await(static fn (): ?bool => false !== @file_get_contents($address) ?: null, 'the server');
                $o->driver->get($address);
                $o->see($says);
                $o->see('56,982 points');
                sleep(2);
                $this->pick('canvas');
                $o->see(' N');
                self::assertSame([], $o->complaints(), $address);
            }
        } finally {
            $server->stop(0);
        }
    }

    private function pick(string $css = '[data-test=cloud-space] canvas'): void
    {
        $o = self::$office;
        $canvas = $o->find($css);
        $o->await(static function () use ($o, $canvas): ?bool {
            // Points stand apart: somewhere about the middle one is met.
            (new WebDriverActions($o->driver))->moveToElement($canvas, random_int(-60, 60), random_int(-20, 60))->click()->perform();
            usleep(300_000);

            return 1 === preg_match('/\d E /', $o->text()) ?: null;
        }, 'a point under the pointer', 30.0);
    }

    /** The archive that was written last. */
    private function newest(string $store): string
    {
        $found = ['', 0];
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($store, \FilesystemIterator::SKIP_DOTS)) as $file) {
            \assert($file instanceof \SplFileInfo);
            $zip = new \ZipArchive();
            if ($file->getMTime() >= $found[1] && true === $zip->open($file->getPathname(), \ZipArchive::RDONLY)) {
                $found = false !== $zip->locateName('index.html') ? [$file->getPathname(), $file->getMTime()] : $found;
            }
        }

        return $found[0];
    }
}
