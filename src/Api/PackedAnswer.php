<?php

declare(strict_types=1);

namespace App\Api;

use Symfony\Component\HttpFoundation\Response;

/**
 * A view some of whose properties are tables of thousands of rows. Deflated (zlib): 4 bytes length of the head, the head
 * as JSON ({facts, tables}), the columns of each table. Pages read it as if it were JSON.
 */
final class PackedAnswer
{
    public const TYPE = 'application/vnd.mensura.columns';
    /** Coordinates hardly compress; more effort would only take longer. */
    private const EFFORT = 1;

    /** @param array<string, class-string> $tables classes of the rows, by the property of the view that holds them */
    public static function of(object $view, array $tables): Response
    {
        $facts = array_diff_key(get_object_vars($view), $tables);
        $heads = [];
        $bytes = '';
        foreach ($tables as $property => $class) {
            $rows = new PackedRows($class);
            foreach ($view->{$property} as $row) {
                $rows->add($row);
            }
            $heads[] = ['name' => $property] + $rows->about();
            $bytes .= $rows->bytes();
        }
        $head = json_encode(['facts' => $facts, 'tables' => $heads], \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE);

        return new Response((string) gzcompress(pack('V', \strlen($head)).$head.$bytes, self::EFFORT), 200, ['Content-Type' => self::TYPE]);
    }
}
