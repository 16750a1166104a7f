<?php

declare(strict_types=1);

namespace App\Network\View;

/** An observation that two runs judge differently. */
final readonly class ChangedVerdictView
{
    /** @param string $verdict what the later run says of it: stands out, fits now, set aside, used again, new, gone */
    public function __construct(
        public int $id,
        public ?string $component,
        public string $kind,
        public string $at,
        public string $to,
        public ?float $before,
        public ?float $after,
        public string $verdict,
    ) {
    }
}
