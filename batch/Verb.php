<?php

declare(strict_types=1);

namespace Batch;

use Mensura\Fault\UnusableInput;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

/** A verb of the batch interface: files and options in, the result on standard output, remarks beside it. */
abstract class Verb extends Command
{
    /**
     * @param resource $out
     * @param resource $err
     */
    final public function __construct(protected $out, protected $err)
    {
        parent::__construct();
    }

    /** @throws UnusableInput naming the file, its line, the reason and what to do */
    abstract protected function answer(InputInterface $input): void;

    final protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $this->answer($input);

        return self::SUCCESS;
    }

    protected function say(string $line): void
    {
        fwrite($this->err, $line."\n");
    }

    /** @param array<string, mixed> $result */
    protected function print(array $result): void
    {
        $flags = \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES;
        fwrite($this->out, json_encode($result, $flags)."\n");
    }

    protected static function text(InputInterface $input, string $option): ?string
    {
        $value = $input->getOption($option);

        return \is_string($value) ? $value : null;
    }

    protected static function positive(InputInterface $input, string $option): ?float
    {
        $value = self::text($input, $option);
        if (null !== $value && (!is_numeric($value) || !((float) $value > 0.0) || !is_finite((float) $value))) {
            throw new UnusableInput("--$option", \sprintf('"%s" is not a positive number', $value));
        }

        return null === $value ? null : (float) $value;
    }

    /** Metres, not negative. */
    protected static function distance(InputInterface $input, string $option): ?float
    {
        $value = self::text($input, $option);
        if (null !== $value && (!is_numeric($value) || !((float) $value >= 0.0) || !is_finite((float) $value))) {
            throw new UnusableInput("--$option", \sprintf('"%s" is not a distance of 0 or more', $value));
        }

        return null === $value ? null : (float) $value;
    }

    protected static function onlyFile(InputInterface $input, string $what): string
    {
        $files = $input->getArgument('files');
        $count = \is_array($files) ? \count($files) : 0;

        return 1 === $count ? (string) $files[0] : throw new UnusableInput('', \sprintf('give one %s file, not %d', $what, $count));
    }
}
