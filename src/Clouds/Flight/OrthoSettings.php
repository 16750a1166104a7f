<?php

declare(strict_types=1);

namespace App\Clouds\Flight;

use App\Clouds\Request\OrthoRequest;

/** What is made of an adjusted flight; kept with the result, so that it can be made again. Metres; null for what suits its pixels. */
final readonly class OrthoSettings
{
    public function __construct(public string $name, public int $flight, public ?float $cell = null, public ?float $pixel = null)
    {
    }

    public static function of(OrthoRequest $r): self
    {
        return self::fromArray((array) $r);
    }

    /** @param array<string, mixed> $s */
    public static function fromArray(array $s): self
    {
        return new self(
            trim((string) $s['name']), (int) $s['flight'], isset($s['cell']) ? (float) $s['cell'] : null,
            isset($s['pixel']) ? (float) $s['pixel'] : null,
        );
    }
}
