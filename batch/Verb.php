<?php

declare(strict_types=1);

namespace Batch;

use Mensura\Fault\UnusableInput;

interface Verb
{
    public static function help(): string;

    /**
     * @param list<string> $arguments
     * @param resource     $out
     * @param resource     $err
     *
     * @throws UnusableInput
     */
    public function run(array $arguments, $out, $err): void;
}
