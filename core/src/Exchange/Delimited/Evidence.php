<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/** How sure it is that a column means what it is taken for, and why. */
final readonly class Evidence
{
    /** Heading and values say so. */
    public const SURE = 'sure';
    /** One of the two says so and the other does not speak against it. */
    public const LIKELY = 'likely';
    /** The values speak against it, or another reading is as good. */
    public const DOUBTFUL = 'doubtful';
    /** Somebody said so. */
    public const CHOSEN = 'chosen';

    public function __construct(public string $level, public string $why)
    {
    }
}
