<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/** Something odd about a file, with its line. An error leaves the row out; a warning does not. */
final readonly class Finding
{
    public const ERROR = 'error';
    public const WARNING = 'warning';

    public function __construct(public string $severity, public ?int $line, public string $message)
    {
    }
}
