<?php

declare(strict_types=1);

namespace Batch\Level;

use Batch\JsonVerb;
use Mensura\Exchange\LevelJson\LevelJsonReader;
use Mensura\Levelling\LevelBook;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;

#[AsCommand('level', 'Heights, misclosures and loops of a levelling book, mensura-level/1; prints the same format')]
final class LevelVerb extends JsonVerb
{
    protected static function document(): string
    {
        return 'levelling book, BOOK.json';
    }

    protected function compute(string $json, InputInterface $input): array
    {
        return LevelBook::work(...(new LevelJsonReader())->read($json))->toArray();
    }
}
