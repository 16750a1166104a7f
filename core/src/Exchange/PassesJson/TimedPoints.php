<?php

declare(strict_types=1);

namespace Mensura\Exchange\PassesJson;

use Mensura\Exchange\Las\LasReader;
use Mensura\Exchange\Las\LazFile;
use Mensura\Fault\UnusableInput;

/** Points with the time each was measured at: LAS or LAZ with GPS times, or a CSV. Seconds, metres. */
final readonly class TimedPoints
{
    /**
     * @param string $name for messages
     *
     * @return iterable<array{list<float>, list<float>, list<float>, list<float>, list<int>}> time, e, n, h and intensity, many at once;
     *                                                                                        no intensities where there are none
     *
     * @throws UnusableInput
     */
    public static function of(string $path, string $name): iterable
    {
        if (!is_file($path)) {
            throw new UnusableInput($name, 'cannot be read; is the file there?');
        }

        return 'LASF' === file_get_contents($path, length: 4) ? self::las($path, $name) : self::csv($path, $name);
    }

    /** @return \Generator<array{list<float>, list<float>, list<float>, list<float>, list<int>}> */
    private static function csv(string $path, string $name): \Generator
    {
        foreach ((new TimedCsv($path, $name))->blocks() as $block) {
            yield [...$block, []];
        }
    }

    /** @return \Generator<array{list<float>, list<float>, list<float>, list<float>, list<int>}> */
    private static function las(string $path, string $name): \Generator
    {
        $las = self::opened($path, $name);
        if ($las->isPacked) {
            $las = self::opened(LazFile::unpacked($path, $name), $name);
        }
        $hasTime = 0 === $las->count;
        foreach ($las->records() as $bytes) {
            $times = $las->times($bytes) ?? throw new UnusableInput($name, \sprintf(
                'holds points without GPS time (point format %d); export it with times', $las->format,
            ));
            [$x, $y, $z] = $las->unpacked($bytes);
            foreach ($times as $i => $time) {
                $hasTime = $hasTime || 0.0 !== $time;
                if (!is_finite($time)) {
                    throw new UnusableInput($name, \sprintf('a time among its points is no number (number %d of its block)', $i + 1));
                }
            }
            yield [$times, $x, $y, $z, $las->intensities($bytes)];
        }
        if (!$hasTime) {
            throw new UnusableInput($name, 'holds points without GPS time: all of them are 0; export it with times');
        }
    }

    private static function opened(string $path, string $name): LasReader
    {
        return new LasReader(fopen($path, 'r') ?: throw new UnusableInput($name, 'cannot be read'), $name);
    }
}
