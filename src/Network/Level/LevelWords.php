<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Project\Shown;
use Mensura\Levelling\LevelledBook;

/** Sections and loops of a levelling book as reports print them. */
final class LevelWords
{
    public const SECTIONS = ['run', 'from', 'to', 'setups', 'length m', 'difference', 'misclosure', 'allowable', 'closes'];

    /** @return list<array{cells: list<string>, fails: bool}> under {@see self::SECTIONS} */
    public static function sections(LevelledBook $book, Shown $as): array
    {
        $rows = [];
        foreach ($book->sections as $s) {
            $rows[] = [
                'cells' => [
                    $s->run, $s->from, $s->to, (string) $s->setupCount, null === $s->length ? '' : \sprintf('%.1f', $s->length),
                    $as->length($s->difference),
                    null === $s->misclosure ? '' : $as->small($s->misclosure, true).' '.$as->smallUnit(),
                    null === $s->allowable ? '' : $as->small($s->allowable).' '.$as->smallUnit(),
                    null === $s->passed ? '' : ($s->passed ? 'passes' : 'fails'),
                ],
                'fails' => false === $s->passed,
            ];
        }

        return $rows;
    }

    /** @return list<array{words: string, fails: bool}> */
    public static function loops(LevelledBook $book, Shown $as): array
    {
        $list = [];
        foreach ($book->loops as $l) {
            $list[] = [
                'words' => \sprintf(
                    'Loop %s: misclosure %s %s%s.', implode(', ', $l->runs), $as->small($l->misclosure, true), $as->smallUnit(),
                    null === $l->allowable ? '' : \sprintf(', allowable %s', $as->small($l->allowable)),
                ),
                'fails' => false === $l->passed,
            ];
        }

        return $list;
    }
}
