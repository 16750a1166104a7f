<?php

declare(strict_types=1);

namespace App\Tests\Browser;

use Demo\Generator;
use Demo\TruthModel;
use Facebook\WebDriver\WebDriverBy;
use Mensura\Quantity\Angle;
use Symfony\Component\Process\Process;

/** Files as they come from the field: silent about units, headed in another language or not at all, spelled in several ways. */
final class IntakeTest extends OfficeTestCase
{
    /** What a new user does from the empty project to an adjusted network, at most. */
    private const MOST_ACTIONS = 12;

    private int $actions = 0;

    private function act(\Closure $action): void
    {
        ++$this->actions;
        $action();
    }

    /** The rounds of the demo project as a book in gon with both faces, headed in German and silent about lengths and angles. */
    private static function book(): string
    {
        $rows = explode("\n", trim((new Generator(new TruthModel()))->files()['rounds-crest.csv']));
        $book = "Standpunkt;Satz;Lage;ih;Ziel;th;Hz;V;SD;Wetter\n";
        foreach (\array_slice($rows, 2) as $i => $row) {
            [$station, $round, $hi, $target, $ht, $direction, $zenith, $distance] = explode(';', $row);
            $hz = (float) Angle::parse($direction) / 0.9;
            $v = (float) Angle::parse($zenith) / 0.9;
            // The faces differ by a collimation of 0.4 mgon and an index error of 0.3 mgon, opposite in both.
            foreach ([[1, $hz + 0.0004, $v + 0.0003], [2, fmod($hz + 200.0 - 0.0004, 400.0), 400.0 - $v + 0.0003]] as [$face, $h, $z]) {
                $book .= \sprintf("%s;%s;%s;%s;%s;%s;%.4f;%.4f;%s;%s\n", ...[
                    $station, $round, ['I', 'II'][$face - 1], $hi, $target, $ht, $h, $z, $distance, 0 === $i % 2 ? 'sun' : 'wind',
                ]);
            }
        }

        return $book;
    }

    /** A control list, a gon book with both faces and a list without headings: adjusted in a dozen actions. */
    public function testFromTheEmptyProjectToAnAdjustedNetwork(): void
    {
        $o = self::$office;
        $this->newProject('Third tarn');
        $folder = $o->folder;
        file_put_contents("$folder/festpunkte.csv", "Punktnr.;Rechtswert [m];Hochwert [m];ell. Höhe [m]\n"
            ."KT01;493120.412;6028061.238;236.418\nKT04;493212.087;6028408.337;244.264\n"
            ."KT07;493560.338;6028176.449;226.026\nKT08;493529.602;6028441.199;233.489\n");
        file_put_contents("$folder/buch.csv", self::book());
        $topography = "1001 493220.412 6028161.238 236.418 TOE\n1002 493268.931 6028242.671 231.902 TOE\n1003 493250.1 "
            ."6028200.2 230.0 CREST\n";
        file_put_contents("$folder/topo.txt", $topography);

        $this->act(static fn () => $o->bring("$folder/festpunkte.csv", "$folder/buch.csv", "$folder/topo.txt"));
        // What asks is shown first; the list of points is ready as it is, but is to be control.
        $o->see('1 ready, 2 with questions');
        $o->see('In which unit are the lengths (instrument height, target height, slope distance)?');
        $o->see('the zenith angles gather about');
        $o->see('Not used: Wetter (sun, sun)');
        $this->act(static fn () => $o->press('m', '[data-test=take-unit]'));
        $o->await(static fn (): ?bool => str_contains($o->text(), 'In which unit are the lengths') ? null : true, 'lengths answered');
        $this->act(static fn () => $o->press('gon', '[data-test=take-unit]'));
        $o->see('2 ready, 1 with questions');
        $this->act(static fn () => $o->press('topo.txt', '.row'));
        $o->see('3 points, 2 codes');
        $this->act(static fn () => $o->press('m', '[data-test=take-unit]'));
        $this->act(static fn () => $o->click('[data-test=heights-ellipsoidal]'));
        $o->see('3 ready');
        $this->act(static fn () => $o->press('festpunkte.csv', '.row'));
        $o->see('4 points');
        $this->act(static fn () => $o->choose('[aria-label="Kind of file"]', 'control list'));
        $o->find('[data-test=ask-control]');
        $this->act(static fn () => $o->click('[data-test=control-hold]'));
        $o->see('3 ready');
        $this->act(static fn () => $o->click('[data-test=accept-ready]'));
        $o->see('3 files, all accepted', 30.0);
        $this->act(static fn () => $o->keys('4'));
        $o->see('The network is not adjusted yet');
        $this->act(static fn () => $o->click('[data-test=adjust]'));
        $o->see('Adjustment 1', 30.0);
        self::assertLessThanOrEqual(self::MOST_ACTIONS, $this->actions);
    }

    /** While two other processes keep the machine busy, what was chosen before the answer came is kept. */
    public function testChoicesAreKeptOnABusyMachine(): void
    {
        $o = self::$office;
        $this->newProject('Busy tarn');
        $busy = array_map(static function (): Process {
            $process = new Process(['php', '-r', 'while (true) { hash("sha256", str_repeat("x", 100000)); }']);
            $process->start();

            return $process;
        }, [1, 2]);
        try {
            file_put_contents("$o->folder/odd.csv", "a;b;c;d\nG1;493612.3;6028050.5;221.25\nG2;493622.3;6028060.5;222.25\n");
            $o->bring("$o->folder/odd.csv");
            $o->see('is read as', 30.0);
            $o->choose("[aria-label='Column of point']", 'a');
            $o->choose("[aria-label='Column of easting']", 'c');
            $o->choose("[aria-label='Column of northing']", 'b');
            $o->choose("[aria-label='Column of height']", 'd');
            $o->press('m', '[data-test=take-unit]');
            $o->await(static fn (): ?bool => 'c b d' === implode(' ', array_map(
                static fn (string $of): string => (string) $o->driver->executeScript(
                    "return document.querySelector(`[aria-label='Column of \${arguments[0]}']`).closest('.el-select').innerText.trim()",
                    [$of],
                ),
                ['easting', 'northing', 'height'],
            )) && !str_contains($o->text(), 'In which unit') ? true : null, 'every choice kept', 60.0);
        } finally {
            array_map(static fn (Process $p): ?int => $p->stop(0), $busy);
        }
    }

    public function testAMissingDatumIsMendedWhereItIsSaid(): void
    {
        $o = self::$office;
        $this->newProject('Loose tarn');
        file_put_contents("$o->folder/marks.csv", "point,easting [m],northing [m],ellipsoidal height [m],held,sd e [m]\n"
            ."A,493000,6028000,200,no,\nB,493000,6028100,200,no,\nC,493080,6028060,201,no,0.01\n");
        file_put_contents("$o->folder/obs.csv", "station,hi [m],target,ht [m],direction [deg],zenith [deg],slope distance [m]\n"
            ."A,1.5,B,1.5,0,90,99.96\nA,1.5,C,1.5,53.13,89.43,99.97\nB,1.5,A,1.5,180,90,99.96\nB,1.5,C,1.5,116.565,89.36,89.41\n");
        $o->bring("$o->folder/marks.csv", "$o->folder/obs.csv");
        $o->see('2 ready');
        $o->click('[data-test=accept-ready]');
        $o->see('2 files, all accepted', 30.0);
        $o->keys('4');
        $o->click('[data-test=adjust]');
        $o->find('[data-test=failure]', 30.0);
        $o->see('datum defect');
        $o->press('Hold A, B and C');
        $o->see('Adjustment 1', 30.0);
        self::assertSame([], $o->driver->findElements(WebDriverBy::cssSelector('[data-test=failure]')));
    }
}
