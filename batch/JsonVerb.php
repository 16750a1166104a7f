<?php

declare(strict_types=1);

namespace Batch;

use Mensura\Fault\UnusableInput;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;

/** A verb that reads one JSON document and prints another. */
abstract class JsonVerb extends Verb
{
    /** Significant digits of the numbers in the answer; -1 for the shortest form that reads back exactly. */
    protected const DIGITS = '-1';

    private const JSON = \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES;

    protected function configure(): void
    {
        $this->addArgument('files', InputArgument::IS_ARRAY, 'the '.static::document());
    }

    /** What the file is, for messages, and after a comma the name it has in the help. */
    abstract protected static function document(): string;

    /**
     * @return array<string, mixed> the answer; "warnings" in it are said on standard error too
     *
     * @throws UnusableInput naming the place in the document
     */
    abstract protected function compute(string $json, InputInterface $input): array;

    protected function answer(InputInterface $input): void
    {
        $file = self::onlyFile($input, explode(', ', static::document())[0]);
        try {
            $answer = $this->compute(Input::contents($file), $input);
        } catch (UnusableInput $e) {
            throw str_starts_with($e->getMessage(), $file) ? $e : new UnusableInput(
                $file.('' === $e->where ? '' : ' '.$e->where), $e->reason,
            );
        }
        $warnings = $answer['warnings'] ?? [];
        foreach (\is_array($warnings) ? $warnings : [] as $warning) {
            $this->say('warning: '.(\is_string($warning) ? $warning : ''));
        }
        $before = (string) \ini_get('serialize_precision');
        ini_set('serialize_precision', static::DIGITS);
        try {
            $json = json_encode($answer, self::JSON);
        } catch (\JsonException) {
            throw new UnusableInput($file, 'the result leaves the range of numbers; look for a value of absurd size');
        } finally {
            ini_set('serialize_precision', $before);
        }
        fwrite($this->out, $json."\n");
    }
}
