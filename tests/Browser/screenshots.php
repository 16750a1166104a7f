<?php

declare(strict_types=1);

// Pictures of the main views from demo data: php tests/Browser/screenshots.php FOLDER [only]

use App\Tests\Browser\Office;

require dirname(__DIR__, 2).'/vendor/autoload.php';

$folder = $argv[1] ?? 'docs/screenshots';
$only = $argv[2] ?? '';
$office = new Office();
$office->startWorker();
$wants = static fn (string $name): bool => '' === $only || str_contains($only, $name);
$shoot = static fn (string $name) => $office->shoot("$folder/$name.png");

try {
    $office->signIn();
    if ($wants('network')) {
        $office->go('/p/1/network');
        $office->see('Adjustment 3');
        $office->find('.body .row');
        $office->click('.body .row');
        $office->click('[data-test=source]');
        $office->find('.source');
        $shoot('network');
    }
    if ($wants('suspects')) {
        $office->go('/p/1/network');
        $office->see('Adjustment 3');
        $office->press('Suspects');
        $office->click('[data-test=search-suspects]');
        $office->see('What it touches');
        $office->see('moves with the correction');
        $shoot('suspects');
    }
    if ($wants('baselines')) {
        $office->go('/p/1/baselines');
        $office->see('not fixed');
        $office->click('[data-test=epochs]');
        $office->see('left its mark', 40);
        $office->see('Drag over any plot');
        usleep(900000);
        $shoot('baselines');
    }
    if ($wants('book')) {
        $office->go('/p/1/network');
        $office->see('Adjustment 3');
        $office->press('Setups');
        $office->press('Book, reduced', 'label');
        $office->see('reference refractivity');
        $shoot('book');
    }
    if ($wants('intake')) {
        $office->go('/p/1/intake');
        $office->see('all accepted');
        $file = $office->folder.'/rounds-west.csv';
        file_put_contents(
            $file,
            "station,round,hi [m],target,ht [m],direction,zenith,slope distance\nKT12,1,1.520,KT02,1.600,0 00 00,90 11 "
                ."20,97.214\nKT12,1,1.520,KT-10,1.600,37 12 44,89 40 02,178.832\nKT12,1,1.520,KT01,1.600,115 40 "
                    ."10,oops,146.720\nKT12,1,1.520,KT04,1.600,310 02 15,88 02 11,218.124\n",
        );
        $office->bring($file);
        $office->see('is read as');
        $shoot('intake');
    }
    if ($wants('terrain')) {
        $office->go('/p/1/terrain?surface=3');
        $office->see('Heap, June: ');
        $office->click('[data-test=change-surface]');
        $office->see('204 points in');
        $office->settle();
        $shoot('terrain');
        $office->go('/p/1/terrain?volume=2');
        $office->see('heap, May to June: ');
        $office->settle();
        $shoot('volume');
    }
    if ($wants('clouds')) {
        $office->go('/p/1/clouds');
        $office->find('[data-test=cloud-space] canvas');
        $office->choose('[data-test=colour-by]', 'its colours');
        sleep(3);
        $shoot('clouds');
    }
    if ($wants('passes')) {
        $office->go('/p/1/clouds?page=passes');
        $office->see('Both drives agree', 30);
        sleep(2);
        $shoot('passes');
    }
    if ($wants('reference')) {
        $office->go('/p/1/reference');
        $office->type('[data-test=system-search]', 'here');
        $office->see('ppm at the centre');
        $shoot('reference');
    }
    if ($wants('flights')) {
        $office->console('mensura:demo', '--flight=worker');
        $office->go('/');
        $office->signIn();
        $office->go('/p/2/clouds?page=flights');
        $office->see('Made of it', 600);
        $office->settle();
        $shoot('flights');
    }
    if ($wants('images')) {
        if (!$wants('flights')) {
            $office->console('mensura:demo', '--flight=worker');
            $office->go('/');
            $office->signIn();
        }
        $office->go('/p/2/clouds?page=images');
        $office->see('The images agree', 600);
        $office->click('[data-test=pick-view]');
        $office->see('rays meet', 60);
        $office->settle();
        $shoot('images');
    }
    if ($wants('checks')) {
        $office->go('/p/1/checks');
        $office->see('of slab B2 lies within');
        usleep(900000);
        $shoot('checks');
    }
    if ($wants('handover')) {
        $office->go('/p/1/handover');
        $office->see('read back');
        $shoot('handover');
    }
    if ($wants('package')) {
        $office->go('/p/1/handover?page=packages');
        $office->see('Package heap, phase 2 holds');
        $office->settle();
        $shoot('package');
        $office->click('[data-test=open-device]');
        $office->see('1 of 3');
        $office->click('[data-test=next-surface]');
        $office->click('[data-test=next-surface]');
        $office->click('[data-test=field-stake]');
        $office->choose('[data-test=stake-point]', 'CP01');
        $office->see('to CP01');
        usleep(900000);
        $shoot('controller');
    }
    if ($wants('sheet')) {
        $office->go('/p/1/handover?page=sheets');
        $office->see('heap, plan');
        $office->click('[data-test=edit-sheet]');
        usleep(2500000);
        $shoot('sheet');
    }
    if ($wants('catalogue')) {
        $office->go('/p/1/handover?page=catalogue');
        $office->click('[data-test=try-1]');
        $office->click('[data-test=collect-HYDRANT]');
        $office->click('[data-test=collect-measure]');
        $office->see('of 10');
        $shoot('catalogue');
    }
    if ($wants('ledger')) {
        $office->go('/p/1/network');
        $office->see('Adjustment 3');
        $office->click('.body .row');
        $office->keys('x');
        $office->see('Adjustment 4');
        $office->click('[data-test=ledger]');
        $office->see('Recompute in order');
        $shoot('ledger');
    }
    foreach ($office->complaints() as $complaint) {
        echo "console: $complaint\n";
    }
} finally {
    $office->close();
}
