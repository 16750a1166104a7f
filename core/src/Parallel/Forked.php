<?php

declare(strict_types=1);

namespace Mensura\Parallel;

/**
 * The parts of one computation side by side, each in a process that shares all memory until it writes (fork, POSIX.1). What is
 * computed does not depend on it: where processes cannot be had the parts run one after the other.
 */
final class Forked
{
    /**
     * @param \Closure(int): list<float> $part numbers of one part; it must leave files and connections alone
     *
     * @return list<list<float>> by part
     */
    public static function map(int $parts, \Closure $part): array
    {
        if ($parts < 2 || !\function_exists('pcntl_fork')) {
            return array_map($part, range(0, $parts - 1));
        }
        $children = [];
        for ($k = 1; $k < $parts; ++$k) {
            $pair = stream_socket_pair(\STREAM_PF_UNIX, \STREAM_SOCK_STREAM, \STREAM_IPPROTO_IP);
            $child = false === $pair ? -1 : pcntl_fork();
            if (0 === $child && false !== $pair) {
                self::answer($pair[1], $part, $k);
            }
            $children[$k] = $child > 0 && false !== $pair ? [$child, $pair[0]] : null;
            if (false !== $pair) {
                fclose($pair[1]);
            }
        }
        $results = [$part(0)];
        foreach ($children as $k => $child) {
            $bytes = null === $child ? '' : (string) stream_get_contents($child[1]);
            if (null !== $child) {
                pcntl_waitpid($child[0], $status);
            }
            $count = intdiv(\strlen($bytes), 8);
            // A part whose process ended early is computed here: its fault, if it has one, is then reported as any other.
            $results[] = $count > 0 && 0 === \strlen($bytes) % 8 ? self::numbers($bytes) : $part($k);
        }

        return $results;
    }

    /**
     * @param resource                   $to
     * @param \Closure(int): list<float> $part
     */
    private static function answer($to, \Closure $part, int $k): never
    {
        try {
            fwrite($to, pack('d*', ...$part($k)));
            fflush($to);
        } finally {
            // Ended at once: what is open belongs to the other process, and nothing here may close or complete it.
            posix_kill((int) getmypid(), \SIGKILL);
            exit;
        }
    }

    /** @return list<float> */
    private static function numbers(string $bytes): array
    {
        $numbers = [];
        foreach ((array) unpack('d*', $bytes) as $number) {
            $numbers[] = \is_float($number) ? $number : \NAN;
        }

        return $numbers;
    }
}
