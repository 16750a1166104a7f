<?php

declare(strict_types=1);

namespace App\Project;

use App\Api\Refusal;

final class NoSuchProject extends \RuntimeException implements Refusal
{
    public function __construct()
    {
        parent::__construct('There is no such project, or you are not a member of it.');
    }

    public function status(): int
    {
        return 404;
    }

    public function title(): string
    {
        return 'Not found.';
    }

    public function more(): array
    {
        return [];
    }
}
