<?php

declare(strict_types=1);

namespace App\Tests\Intake;

use App\Tests\ApiTestCase;

/** What takes too long for a page to wait for is a job: reading and accepting a large file, the volume of a large surface. */
final class LargeFileTest extends ApiTestCase
{
    private const SIDE = 180;

    public function testALargeFileIsReadByAJobOnceAndKeptWhileNothingChanges(): void
    {
        $received = $this->bring('ground.csv', self::points(), 202);
        $job = $this->get("/jobs/{$received['job']}");
        self::assertSame(['done', 'Read ground.csv'], [$job['state'], $job['title']]);
        $preview = $this->get("/intake/{$received['id']}");
        self::assertSame(self::SIDE ** 2, $preview['counts']['points']);
        self::assertLessThanOrEqual(3000, \count($preview['points']));
        self::assertLessThan(300_000, \strlen((string) $this->client->getResponse()->getContent()));
        self::assertSame($preview, $this->get("/intake/{$received['id']}"));
        self::assertCount(1, array_filter($this->get('/jobs'), static fn (array $j): bool => 'Read ground.csv' === $j['title']));

        // Someone else changes something: what is odd about the file may be something else now.
        $this->accept('control.csv', "point,easting [m],northing [m],ellipsoidal height [m]\nG7,493000.0,6028000.0,290.0\n");
        $again = $this->get("/intake/{$received['id']}", 202);
        self::assertSame($received['id'], $again['id']);
        $now = $this->get("/intake/{$received['id']}");
        self::assertStringContainsString('G7', implode(' ', array_column($now['findings'], 'message')));

        $this->job("/intake/{$received['id']}/accept");
        $surface = ['name' => 'Ground', 'roles' => ['surveyed'], 'interval' => 1.0, 'lines' => []];
        $made = $this->post('/terrain/surfaces', $surface, 202);
        self::assertSame('done', $this->get("/jobs/{$made['job']}")['state']);
        $volume = $this->job('/terrain/volumes', [
            'name' => 'above 200', 'surface' => $made['surface'], 'against' => 'elevation', 'elevation' => 200.0,
        ]);
        self::assertSame('done', $volume['state'], (string) $volume['error']);
        $computed = $this->get('/terrain')['volumes'][0];
        // A plane that rises a metre in a hundred from 200: half of the area times the mean height.
        $side = self::SIDE - 1.0;
        self::assertEqualsWithDelta(0.005 * $side ** 3, $computed['cut'], 1.0);
        self::assertSame(0.0, (float) $computed['fill']);
    }

    public function testAnUploadSentAgainBecauseItsAnswerWasLostIsOneFile(): void
    {
        $this->headers = ['HTTP_IDEMPOTENCY_KEY' => 'abcdefgh12345678'];
        $text = "point,easting [m],northing [m],ellipsoidal height [m],code\nT1,493000,6028000,200,X\n";
        $first = $this->bring('small.csv', $text);
        self::assertSame($first, $this->bring('small.csv', $text));
        self::assertCount(1, $this->get('/intake')['files']);
        $surface = ['name' => 'Ground', 'roles' => ['surveyed'], 'interval' => 1.0, 'lines' => []];
        $this->headers = [];
        $rows = "A,493000,6028000,200\nB,493100,6028000,200\nC,493000,6028100,200\n";
        $this->accept('three.csv', "point,easting [m],northing [m],ellipsoidal height [m]\n".$rows);
        $this->headers = ['HTTP_IDEMPOTENCY_KEY' => 'abcdefgh87654321'];
        self::assertSame($this->post('/terrain/surfaces', $surface, 202), $this->post('/terrain/surfaces', $surface, 202));
        self::assertCount(1, $this->get('/terrain')['surfaces']);
    }

    private static function points(): string
    {
        $text = "point,easting [m],northing [m],ellipsoidal height [m],code\n";
        for ($i = 0; $i < self::SIDE ** 2; ++$i) {
            [$e, $n] = [$i % self::SIDE, intdiv($i, self::SIDE)];
            $text .= \sprintf("G%d,%.3f,%.3f,%.3f,GRND\n", $i, 493000.0 + $e, 6028000.0 + $n, 200.0 + 0.01 * $e);
        }

        return $text;
    }
}
