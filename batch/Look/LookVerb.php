<?php

declare(strict_types=1);

namespace Batch\Look;

use Batch\Input;
use Batch\Verb;
use Mensura\Exchange\Look\FileLook;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;

#[AsCommand('look', 'What a file is and what it holds; prints mensura-look/1 JSON')]
final class LookVerb extends Verb
{
    protected function configure(): void
    {
        $this->addArgument('files', InputArgument::IS_ARRAY, 'one file of any kind');
    }

    protected function answer(InputInterface $input): void
    {
        $file = self::onlyFile($input, 'file');
        $path = is_file($file) || is_dir($file) ? $file : Input::path($file);
        $this->print(FileLook::of($path, $file)->toArray());
    }
}
