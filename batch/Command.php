<?php

declare(strict_types=1);

namespace Batch;

use Mensura\Fault\UnusableInput;

/** The verbs of the batch interface: arguments in, result on standard output, one line of reason when the input is unusable. */
final class Command
{
    private const VERBS = [
        'adjust' => AdjustVerb::class,
        'surface' => SurfaceVerb::class,
        'transform' => TransformVerb::class,
    ];

    /**
     * @param list<string> $arguments the verb and what follows it
     * @param resource     $out
     * @param resource     $err
     */
    public static function run(array $arguments, $out, $err): int
    {
        $verb = array_shift($arguments) ?? 'help';
        if ('help' === $verb) {
            $class = self::VERBS[$arguments[0] ?? ''] ?? null;
            fwrite($out, null === $class ? 'Verbs: '.implode(', ', array_keys(self::VERBS)).". Say mensura help VERB.\n" : $class::help());

            return 0;
        }
        $class = self::VERBS[$verb] ?? null;
        if (null === $class) {
            fwrite($err, \sprintf("mensura: there is no verb \"%s\"; there are %s\n", $verb, implode(', ', array_keys(self::VERBS))));

            return 2;
        }
        if (\in_array('--help', $arguments, true)) {
            fwrite($out, $class::help());

            return 0;
        }
        try {
            (new $class())->run($arguments, $out, $err);

            return 0;
        } catch (UnusableInput $e) {
            fwrite($err, \sprintf("mensura %s: %s\n", $verb, strtr($e->getMessage(), "\n", ' ')));

            return 2;
        } catch (\Throwable $e) {
            fwrite($err, \sprintf("mensura %s: a defect of ours: %s (%s:%d)\n", $verb, $e->getMessage(), basename($e->getFile()), $e->getLine()));

            return 1;
        }
    }
}
