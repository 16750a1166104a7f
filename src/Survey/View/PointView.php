<?php

declare(strict_types=1);

namespace App\Survey\View;

use App\Survey\PointRow;

/** A point of the project; metres. Given values and sd belong to control; version is the ledger entry that last changed it. */
final readonly class PointView
{
    public function __construct(
        public int $id,
        public string $name,
        public string $role,
        public string $source,
        public string $code,
        public ?float $e,
        public ?float $n,
        public ?float $h,
        public ?float $givenE,
        public ?float $givenN,
        public ?float $givenH,
        public string $held,
        public ?float $sdE,
        public ?float $sdN,
        public ?float $sdH,
        public ?string $file,
        public ?int $line,
        public string $known,
        public int $version,
    ) {
    }

    public static function of(PointRow $p): self
    {
        return new self(
            $p->id, $p->name, $p->role, $p->source, $p->code, $p->e, $p->n, $p->h, $p->givenE, $p->givenN, $p->givenH, $p->held,
            $p->sdE, $p->sdN, $p->sdH, $p->file, $p->line, $p->known, $p->version,
        );
    }
}
