<?php

declare(strict_types=1);

namespace App\Store;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/**
 * Says where numbers of rows stand within the JSON and the words of other rows, so that a project keeps its sense when it
 * is brought in where its numbers are taken. What the database itself refers to (foreign keys) need not be said.
 */
#[AutoconfigureTag('app.numbers_within')]
interface NumbersWithin
{
    /** A word and numbers after it: "surface:3", "baseline:4-9", "custom:2", also behind another word: "geoid|grid:4". */
    public const AFTER_WORD = ':';

    /** Put before the name of a table: text that ends with a bar and a number of it, "KT01|3". */
    public const AFTER_BAR = '|';

    /**
     * By "table.column", or "table.column kind" where the rows are of several kinds (a result's kind, a ledger entry's
     * operation), or "output kind" for the JSON such a result keeps in the store: what stands at which path. A path is keys
     * with points between, "*" for any, "{}" for the keys of a map themselves, empty for the whole value; what stands there
     * is a number of a table, or one of the two above.
     *
     * @return array<string, array<string, string>>
     */
    public static function numbers(): array;

    /** @return array<string, string> whose number it is, by the word before it */
    public static function words(): array;
}
