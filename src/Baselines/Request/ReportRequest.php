<?php

declare(strict_types=1);

namespace App\Baselines\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** A position report as it was received. */
final readonly class ReportRequest
{
    public function __construct(#[Assert\NotBlank, Assert\Length(max: 20000)] public string $text)
    {
    }
}
