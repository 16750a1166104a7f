<?php

declare(strict_types=1);

namespace App\Tests\Together;

use PHPUnit\Framework\TestCase;

/** What several people do at the same moment: nothing is lost, nothing is done twice, and who must wait is told. */
final class TogetherTest extends TestCase
{
    private static Office $office;

    public static function setUpBeforeClass(): void
    {
        self::$office = new Office();
    }

    public function testTwoOwnersWhoDemoteEachOtherLeaveAnOwner(): void
    {
        for ($i = 0; $i < 3; ++$i) {
            $said = self::$office->atOnce(['member', 'ada', 'editor'], ['member', 'bo', 'editor']);
            $owners = self::$office->rows("SELECT user_id FROM membership WHERE role = 'owner'");
            self::assertCount(1, $owners, implode("\n", $said));
            self::assertCount(
                1,
                array_filter($said, static fn (string $s): bool => str_contains($s, 'keeps at least one owner')),
                implode("\n", $said),
            );
            self::$office->atOnce(['member', 'ada', 'owner']);
            self::$office->atOnce(['member', 'bo', 'owner']);
        }
    }

    public function testParallelChangesOfOneMemberAreOneAfterTheOther(): void
    {
        $said = self::$office->atOnce(
            ['member', 'bo', 'none'], ['member', 'bo', 'editor'], ['member', 'bo', 'reviewer'],
            ['member', 'bo', 'owner'],
        );
        self::assertSame(array_fill(0, 4, 'done'), $said);
        self::assertLessThanOrEqual(2, \count(self::$office->rows('SELECT user_id FROM membership')));
        self::$office->atOnce(['member', 'bo', 'owner']);
    }

    public function testEntriesOfParallelOperationsAreNumberedWithoutGapsAndNoneIsLost(): void
    {
        $before = (int) self::$office->rows('SELECT COUNT(*) FROM ledger_entry')[0][0];
        $said = self::$office->atOnce(['units', '8', '0'], ['units', '8', '1'], ['units', '8', '2']);
        self::assertSame(array_fill(0, 3, 'done'), $said);
        $numbers = array_map(intval(...), array_column(self::$office->rows('SELECT seq FROM ledger_entry ORDER BY seq'), 0));
        self::assertSame(range(1, \count($numbers)), $numbers);
        // Two who set the same thing make one entry of it.
        self::assertGreaterThan($before + 7, \count($numbers));
    }

    public function testAJobIsClaimedByOneOfManyWorkers(): void
    {
        $job = bin2hex(random_bytes(8));
        self::$office->database()->exec(
            'INSERT INTO job (id, project_id, author_id, kind, title, payload, state, created_at) '
                ."VALUES ('$job', 1, 1, 'recompute', 't', '{}', 'queued', '2031-05-04 09:00:00')",
        );
        $said = self::$office->atOnce(['claim', $job], ['claim', $job], ['claim', $job], ['claim', $job]);
        self::assertCount(1, array_filter($said, static fn (string $s): bool => str_starts_with($s, 'claimed')), implode("\n", $said));
        self::assertSame([['running', 1]], array_map(
            static fn (array $r): array => [$r[0], (int) $r[1]],
            self::$office->rows("SELECT state, attempts FROM job WHERE id = '$job'"),
        ));
    }

    public function testALockOfSomeSecondsIsAProblemThatSaysSoNotADefect(): void
    {
        [, $said] = self::$office->atOnce(['hold', '5'], ['request']);
        self::assertStringStartsWith('503 application/problem+json 2 ', $said);
        self::assertStringContainsString('nothing was changed. Try again in a moment.', $said);
        // A shorter one is waited for.
        [, $said] = self::$office->atOnce(['hold', '1'], ['request']);
        self::assertStringStartsWith('200 ', $said);
    }
}
