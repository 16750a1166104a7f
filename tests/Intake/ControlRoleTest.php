<?php

declare(strict_types=1);

namespace App\Tests\Intake;

use App\Tests\ApiTestCase;

/** A control list that states neither held nor a standard deviation is asked what it is, once. */
final class ControlRoleTest extends ApiTestCase
{
    private const LIST = "point,easting [m],northing [m],ellipsoidal height [m]\nA,493612.3,6028050.5,221\nB,493712.3,6028050.5,\n";

    private function asked(string $list = self::LIST): int
    {
        $file = $this->bring('control.csv', $list);
        $file = $this->call('PUT', "/intake/{$file['id']}/mapping", ['kind' => 'control'], 200);
        self::assertContains('control', array_column($file['meaning']['asks'], 'key'));
        self::assertFalse($file['acceptable']);
        self::assertStringContainsString('What are they?', $this->post("/intake/{$file['id']}/accept", [], 422)['detail']);

        return $file['id'];
    }

    /**
     * @param array<string, mixed> $answer
     *
     * @return array<string, array<mixed>> role, held and standard deviations by name
     */
    private function accepted(int $file, array $answer): array
    {
        self::assertTrue($this->call('PUT', "/intake/$file/meaning", $answer, 200)['acceptable']);
        $this->post("/intake/$file/accept");
        $points = $this->get('/points')['points'];

        return array_combine(
            array_column($points, 'name'),
            array_map(static fn (array $p): array => [$p['role'], $p['held'], $p['sdE'], $p['sdH']], $points),
        );
    }

    public function testHeld(): void
    {
        self::assertSame(
            ['A' => ['control', 'enh', null, null], 'B' => ['control', 'en', null, null]],
            $this->accepted($this->asked(), ['control' => 'hold']),
        );
    }

    public function testWeighted(): void
    {
        $file = $this->asked();
        $this->call('PUT', "/intake/$file/meaning", ['control' => 'weight'], 422);
        $this->call('PUT', "/intake/$file/meaning", ['control' => 'weight', 'sigma' => -1], 422);
        self::assertSame(
            ['A' => ['control', '', 0.02, 0.02], 'B' => ['control', '', 0.02, null]],
            $this->accepted($file, ['control' => 'weight', 'sigma' => 0.02]),
        );
    }

    public function testForInformation(): void
    {
        self::assertSame(
            ['A' => ['surveyed', '', null, null], 'B' => ['surveyed', '', null, null]],
            $this->accepted($this->asked(), ['control' => 'information']),
        );
    }

    public function testAListThatSaysItselfIsNotAsked(): void
    {
        $list = "point,easting [m],northing [m],ellipsoidal height [m],held\nA,493612.3,6028050.5,221,enh\n";
        $file = $this->bring('control.csv', $list);
        self::assertSame(['control', []], [$file['kind'], $file['meaning']['asks']]);
        $none = $this->bring('none.csv', strtr($list, ['enh' => 'no']));
        self::assertSame([], $none['meaning']['asks'], 'That nothing is held is said too.');
    }

    public function testAPlaneProjectAsksToo(): void
    {
        $this->call('PUT', '/reference', ['reference' => 'plane', 'heights' => 'local'], 200);
        $file = $this->bring('p.csv', "mark,x [m],y [m],z [m]\nP,50,60,1\nQ,70,80,2\n");
        self::assertSame(['order'], array_column($file['meaning']['asks'], 'key'));
        $columns = ['name' => 0, 'e' => 2, 'n' => 1, 'h' => 3];
        $answered = $this->call('PUT', "/intake/{$file['id']}/mapping", ['kind' => 'points', 'columns' => $columns], 200);
        self::assertSame([[], []], [$answered['meaning']['asks'], $answered['questions']]);
        self::assertSame([60.0, 50.0], [(float) $answered['points'][0]['e'], (float) $answered['points'][0]['n']]);
    }
}
