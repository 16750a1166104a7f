<?php

declare(strict_types=1);

namespace App\Intake;

/** What a name looks like without its spelling: KT1, KT01 and kt-1 are alike. */
final class PlainName
{
    public static function of(string $name): string
    {
        return (string) preg_replace(['/[^a-z0-9]/', '/(?<![0-9])0+(?=[0-9])/'], '', strtolower($name));
    }
}
