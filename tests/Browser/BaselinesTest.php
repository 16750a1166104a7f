<?php

declare(strict_types=1);

namespace App\Tests\Browser;

/** Baselines as a surveyor works through them: processed, a receiver that slid, features, stations, a wrong base. */
final class BaselinesTest extends OfficeTestCase
{
    public function testAReceiverThatLeftItsMarkIsTrimmedAndFixed(): void
    {
        $office = self::$office;
        $office->go('/p/1/baselines');
        $office->see('2 baselines are not fixed');
        $office->see('22 mm apart in plan');
        $office->click('[data-test=epochs]');
        $office->see('KT08 left its mark', 40);
        $office->see('Drag over any plot');
        $office->settle();
        // A window brushed over the plot of the east replaces the one proposed.
        $plot = $office->find('.plot .host');
        $size = $plot->getSize();
        $x = static fn (float $share): int => (int) (62 + $share * ($size->getWidth() - 82) - $size->getWidth() / 2);
        $y = (int) (0.66 * $size->getHeight() - $size->getHeight() / 2);
        $office->driver->action()->moveToElement($plot, $x(0.05), $y)->clickAndHold()->moveToElement($plot, $x(0.2), $y - 6)
            ->moveToElement($plot, $x(0.35), $y + 8)->release()->perform();
        $office->await(
            static fn (): ?bool => str_contains($office->find('[data-test=keep]')->getText(), 'Keep 12:0') ? true : null,
            'the brushed window',
        );
        $office->click('[data-test=keep]');
        $office->see('All 9 baselines are fixed', 60);
        $office->see('Whole session again');
        $office->click('[data-test=whole]');
        $office->see('KT08 left its mark', 60);
        $office->keys('t');
        $office->see('All 9 baselines are fixed', 60);
        $office->click('[data-test=accept-all]');
        $office->see('vectors are in the network', 30);
    }

    /** Before new ephemerides come in, which make every baseline stale. */
    public function testAStopAndGoRoverBecomesPoints(): void
    {
        $office = self::$office;
        $office->go('/p/1/baselines');
        $office->see('in common');
        $office->settle();
        $office->press('KERB');
        $office->see('10 stops averaged', 20);
        $office->find('[aria-label="Code of the stops"]')->sendKeys('KERB');
        $office->click('[data-test=take-stops]');
        $office->see('The stops are points KERB-1 and following', 30);
        $office->see('36 files');
    }

    public function testABaselineIsProcessedAgainAndARecordingBecomesRinex(): void
    {
        $office = self::$office;
        $office->go('/p/1/baselines');
        $office->click('[data-test=tab-occupations]');
        $office->see('kt02-receiver.log');
        $office->click('[data-test=write-rinex]');
        $office->see('Written as RINEX', 40);
        $office->see('Occupations 11');
        $office->click('[data-test=tab-baselines]');
        $office->click('[data-test=again]');
        $office->choose('[aria-label=Ionosphere]', 'free of it');
        $office->click('[data-test=process-with]');
        $office->see('free of the ionosphere', 40);
        $office->click('[data-test=view-residuals]');
        $office->see('Worst first: root mean square');
        $office->click('[data-test=tab-occupations]');
        $office->see('is it KT09?');
        $office->click('[data-test=take-marker]');
        $office->await(static fn (): ?bool => str_contains($office->text(), 'is it KT09?') ? null : true, 'the marker made right');
    }

    public function testRoverFeaturesAreCorrected(): void
    {
        $office = self::$office;
        $office->go('/p/1/baselines');
        $office->click('[data-test=tab-features]');
        $office->see('Covered in time');
        $office->see('100 %');
        $office->see('of where its file says');
        $office->click('[data-test=correct-features]');
        $office->see('9 of 9 features are corrected', 60);
        $office->find('[data-test=features-geojson]');
    }

    public function testAStationIsOrderedAndAReportCorrectsABase(): void
    {
        $office = self::$office;
        $office->go('/p/1/baselines');
        $office->click('[data-test=tab-stations]');
        $office->see('rounded outward to the hour');
        $office->choose('[aria-label="From"]', '12:00 UTC');
        $office->choose('[aria-label="To"]', '13:00 UTC');
        $office->click('[data-test=order]');
        $office->see('FELL is here: 1 hour', 60);
        $office->choose('[aria-label=Occupation]', 'KT04');
        $office->click('[data-test=send-position]');
        $office->see('POSITION REPORT 1', 60);
        $office->click('[data-test=tab-base]');
        $office->see('The base as the survey had it');
        $office->choose('[data-test=right-mark]', 'KT05');
        $office->see('37 points move: east −0.84', 20);
        $office->click('[data-test=correct-base]');
        $office->see('Every point of the file has moved', 30);
        $office->see('Its base was corrected already');
    }
}
