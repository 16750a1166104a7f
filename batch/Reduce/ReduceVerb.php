<?php

declare(strict_types=1);

namespace Batch\Reduce;

use Batch\JsonVerb;
use Mensura\Exchange\BookJson\BookJsonReader;
use Mensura\TotalStation\SetupReducer;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;

#[AsCommand('reduce', 'Face means, rounds, atmosphere and heights of a mensura-book/1 file; prints mensura-reduced/1 JSON')]
final class ReduceVerb extends JsonVerb
{
    protected static function document(): string
    {
        return 'total-station book, BOOK.json';
    }

    protected function compute(string $json, InputInterface $input): array
    {
        [$settings, $setups] = (new BookJsonReader())->read($json);
        $reducer = new SetupReducer($settings);
        $reduced = $warnings = [];
        foreach ($setups as $setup) {
            $result = $reducer->reduce($setup);
            $reduced[] = $result->toArray();
            array_push($warnings, ...$result->warnings);
        }

        return ['format' => 'mensura-reduced/1', 'setups' => $reduced, 'warnings' => $warnings];
    }
}
