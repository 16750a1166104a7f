<?php

declare(strict_types=1);

namespace Batch;

use Mensura\Fault\UnusableInput;

/** Command-line arguments of a verb: named options with and without values, the rest in order. */
final readonly class Arguments
{
    /**
     * @param array<string, string|true> $options
     * @param list<string>               $rest
     */
    private function __construct(private array $options, public array $rest)
    {
    }

    /**
     * @param list<string> $arguments
     * @param list<string> $valued    options that take a value
     * @param list<string> $flags     options that do not
     */
    public static function parse(array $arguments, array $valued, array $flags): self
    {
        $options = [];
        $rest = [];
        while ([] !== $arguments) {
            $argument = array_shift($arguments);
            if (!str_starts_with($argument, '--')) {
                $rest[] = $argument;
                continue;
            }
            [$name, $value] = explode('=', substr($argument, 2), 2) + [1 => null];
            if (\in_array($name, $flags, true) && null === $value) {
                $options[$name] = true;
            } elseif (\in_array($name, $valued, true)) {
                $options[$name] = $value ?? array_shift($arguments) ?? throw new UnusableInput("--$name", 'needs a value');
            } else {
                throw new UnusableInput($argument, 'is not an option of this verb');
            }
        }

        return new self($options, $rest);
    }

    public function has(string $name): bool
    {
        return isset($this->options[$name]);
    }

    public function text(string $name): ?string
    {
        $value = $this->options[$name] ?? null;

        return \is_string($value) ? $value : null;
    }

    public function positive(string $name): ?float
    {
        $value = $this->text($name);
        if (null === $value) {
            return null;
        }
        if (!is_numeric($value) || !((float) $value > 0.0) || !is_finite((float) $value)) {
            throw new UnusableInput("--$name", \sprintf('"%s" is not a positive number', $value));
        }

        return (float) $value;
    }

    public function onlyFile(string $what): string
    {
        if (1 !== \count($this->rest)) {
            throw new UnusableInput('', \sprintf('give one %s file, not %d', $what, \count($this->rest)));
        }

        return $this->rest[0];
    }
}
