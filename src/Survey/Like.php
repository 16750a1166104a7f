<?php

declare(strict_types=1);

namespace App\Survey;

/** A pattern that finds a text anywhere in a name; every sign of it stands for itself. Its escape is "!". */
final class Like
{
    public static function containing(string $text): string
    {
        return '%'.strtr($text, ['!' => '!!', '%' => '!%', '_' => '!_']).'%';
    }
}
