<?php

declare(strict_types=1);

namespace App\Job;

final class JobCancelled extends \RuntimeException
{
    public function __construct()
    {
        parent::__construct('cancelled');
    }
}
