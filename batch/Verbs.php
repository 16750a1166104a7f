<?php

declare(strict_types=1);

namespace Batch;

use Mensura\Fault\UnusableInput;
use Symfony\Component\Console\Application;
use Symfony\Component\Console\CommandLoader\FactoryCommandLoader;
use Symfony\Component\Console\Exception\ExceptionInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\StreamOutput;

/** The batch interface: one line of reason and exit 2 when the input is unusable, exit 1 for a defect of ours. */
final class Verbs extends Application
{
    /** @var array<string, class-string<Verb>> */
    private readonly array $verbs;

    /**
     * @param resource $out
     * @param resource $err
     */
    public function __construct(private $out, private $err)
    {
        parent::__construct('mensura');
        $this->setAutoExit(false);
        $this->setCatchExceptions(false);
        $this->verbs = require __DIR__.'/verbs.php';
        $make = static fn (string $class): \Closure => static fn () => new $class($out, $err);
        $this->setCommandLoader(new FactoryCommandLoader(array_map($make, $this->verbs)));
    }

    /** @param list<string> $arguments the verb and what follows it */
    public function call(array $arguments): int
    {
        $verb = $arguments[0] ?? 'list';
        if (!isset($this->verbs[$verb]) && !\in_array($verb, ['list', 'help'], true)) {
            fwrite(
                $this->err,
                \sprintf("mensura: there is no verb \"%s\"; there are %s\n", $verb, implode(', ', array_keys($this->verbs))),
            );

            return 2;
        }
        try {
            return $this->run(
                new VerbInput($arguments, $this->valued($verb, true), $this->valued($verb, false)),
                new StreamOutput($this->out),
            );
        } catch (UnusableInput|ExceptionInterface $e) {
            fwrite($this->err, \sprintf("mensura %s: %s\n", $verb, strtr(rtrim($e->getMessage(), "\n"), "\n", ' ')));

            return 2;
        } catch (\Throwable $e) {
            $where = basename($e->getFile()).':'.$e->getLine();
            fwrite($this->err, \sprintf("mensura %s: a defect of ours: %s (%s)\n", $verb, $e->getMessage(), $where));

            return 1;
        }
    }

    /** @return list<string> options of a verb that take a value, or that may */
    private function valued(string $verb, bool $must): array
    {
        $options = isset($this->verbs[$verb]) ? $this->get($verb)->getDefinition()->getOptions() : [];

        return array_values(array_map(
            static fn (InputOption $o): string => $o->getName(), array_filter(
                $options, static fn (InputOption $o): bool => $must ? $o->isValueRequired() : $o->isValueOptional(),
            ),
        ));
    }
}
