<?php

declare(strict_types=1);

namespace App\Api;

/** Patterns of what stands in addresses: plain digits that fit an integer, so that nothing is cast into another number. */
final class Id
{
    public const NUMBER = '<[0-9]{1,15}>';
    public const PROJECT = '/api/projects/{id<[0-9]{1,15}>}';
}
