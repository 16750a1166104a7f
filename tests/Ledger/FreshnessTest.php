<?php

declare(strict_types=1);

namespace App\Tests\Ledger;

use App\Export\Exporter;
use App\Network\Adjuster;
use App\Project\Project;
use App\Terrain\SurfaceMaker;
use App\Tests\ApiTestCase;

/** What changes while something is computed makes the result stale: its versions are those of what was read. */
final class FreshnessTest extends ApiTestCase
{
    private function project(): Project
    {
        return $this->entities()->find(Project::class, $this->project) ?? self::fail('no project');
    }

    /** @return \Closure(string, float): void that changes something once, in the middle of the work */
    private function meanwhile(\Closure $change): \Closure
    {
        $done = false;

        return static function () use ($change, &$done): void {
            if (!$done) {
                $done = true;
                $change();
            }
        };
    }

    public function testAnObservationSetAsideDuringAnAdjustmentMakesItStale(): void
    {
        $this->acceptDemoFiles();
        $id = $this->get('/network')['rows'][0]['id'];
        $aside = ['rows' => [['id' => $id, 'component' => null]], 'aside' => true, 'reason' => 'meanwhile'];
        $this->service(Adjuster::class)->run($this->project(), 'Owner', $this->meanwhile(fn () => $this->post('/network/use', $aside)));
        self::assertSame(['observations changed'], $this->stale()['network'] ?? []);
        $this->post('/network/accept', [], 422);
        $this->service(Adjuster::class)->run($this->project(), 'Owner');
        self::assertSame([], $this->stale());
    }

    public function testWeightsChangedDuringAnAdjustmentMakeItStale(): void
    {
        $this->acceptDemoFiles();
        $settings = [
            'directionSd' => 9.0, 'zenithSd' => 9.0, 'distanceConstant' => 0.01, 'distancePpm' => 2.0, 'instrumentCentring' => 0.001,
            'targetCentring' => 0.001, 'heightCentring' => 0.001, 'refraction' => 0.13, 'confidence' => 0.95, 'free' => false,
        ];
        $change = fn () => $this->call('PUT', '/network/settings', $settings, 200);
        $this->service(Adjuster::class)->run($this->project(), 'Owner', $this->meanwhile($change));
        self::assertSame(['the network settings changed'], $this->stale()['network'] ?? []);
    }

    public function testPointsAndDefinitionChangedDuringASurfaceMakeItAndItsVolumeStale(): void
    {
        $this->acceptDemoFiles();
        $form = ['name' => 'Pit', 'roles' => ['surveyed'], 'lines' => [], 'interval' => 1.0];
        $surface = $this->post('/terrain/surfaces', $form, 202)['surface'];
        $this->job('/terrain/volumes', ['name' => 'v', 'surface' => $surface, 'against' => 'elevation', 'elevation' => 225.0]);
        self::assertArrayNotHasKey("surface:$surface", $this->stale());
        $name = array_values(array_filter(
            $this->get('/points')['points'], static fn (array $p): bool => 'surveyed' === $p['role'],
        ))[0]['name'];
        $change = fn () => $this->post('/points/rename', ['from' => $name, 'to' => 'ANOTHER NAME']);
        $this->service(SurfaceMaker::class)->make($this->project(), 'Owner', $surface, $this->meanwhile($change));
        self::assertSame(['coordinates of points changed'], $this->stale()["surface:$surface"] ?? []);
        self::assertArrayHasKey('volume:1', $this->stale());

        $this->job('/recompute');
        $change = fn () => $this->call('PUT', "/terrain/surfaces/$surface", ['interval' => 0.5] + $form, 202);
        $this->service(SurfaceMaker::class)->make($this->project(), 'Owner', $surface, $this->meanwhile($change));
        self::assertSame(['its definition changed'], $this->stale()["surface:$surface"] ?? []);
    }

    public function testPointsChangedDuringAnExportMakeItStale(): void
    {
        $this->acceptDemoFiles();
        $change = fn () => $this->post('/points/rename', ['from' => 'KT12', 'to' => 'KT12A']);
        $rename = fn () => $this->call(
            'PUT',
            '/control',
            ['point' => 'KT01', 'e' => 493121.0, 'n' => 6028061.0, 'h' => 236.0, 'held' => 'enh'],
            200,
        );
        $this->service(Exporter::class)->export($this->project(), 'Owner', 'csv', [], $this->meanwhile($rename));
        self::assertSame(['coordinates of points changed'], $this->stale()['export:csv'] ?? []);
        $this->service(Exporter::class)->export($this->project(), 'Owner', 'csv', []);
        $change();
        self::assertSame([], $this->stale(), 'KT12 is observed only and has no coordinates to hand over.');
    }

    /** Staleness is kept for a revision; nothing that changes a result may leave it as it was. */
    public function testWhatIsKeptOfARevisionIsNotTakenForTheNext(): void
    {
        $this->acceptDemoFiles();
        $this->job('/network/adjust');
        for ($i = 0; $i < 3; ++$i) {
            self::assertSame([], $this->stale());
            $seq = $this->call(
                'PUT',
                '/control',
                ['point' => 'KT01', 'e' => 493120.5 + $i, 'n' => 6028061.2, 'h' => 236.4, 'held' => 'enh'],
                200,
            )['seq'];
            self::assertArrayHasKey('network', $this->stale());
            $this->post("/ledger/$seq/undo");
        }
        self::assertSame([], $this->stale());
    }
}
