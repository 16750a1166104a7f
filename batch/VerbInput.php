<?php

declare(strict_types=1);

namespace Batch;

use Symfony\Component\Console\Input\ArgvInput;

/** Command-line arguments in which the value of an option may begin with a minus: --against -5, --area -35,18,-34,19. */
final class VerbInput extends ArgvInput
{
    /**
     * @param list<string> $arguments the verb and what follows it
     * @param list<string> $valued    options of the verb that take a value
     * @param list<string> $counted   options that may take a whole number
     */
    public function __construct(array $arguments, array $valued, array $counted = [])
    {
        $joined = [];
        while ([] !== $arguments) {
            $argument = array_shift($arguments);
            $counts = \in_array($argument, array_map(static fn (string $o): string => "--$o", $counted), true);
            if ($counts) {
                // Without a number the argument that follows is a file.
                $joined[] = $argument.'='.(1 === preg_match('/^-?\d+$/', $arguments[0] ?? '') ? array_shift($arguments) : '');
                continue;
            }
            $takes = str_starts_with($argument, '--') && \in_array(substr($argument, 2), $valued, true);
            $joined[] = $takes && [] !== $arguments ? $argument.'='.array_shift($arguments) : $argument;
        }
        parent::__construct(['mensura', ...$joined]);
    }
}
