<?php

declare(strict_types=1);

namespace Demo\Gnss;

use Demo\TruthModel;

/**
 * The GNSS sessions of the demo project: what receivers recorded on 4 May 2031 around Kestrel Tarn. One of them slid off
 * its mark, one carries a marker typed wrong.
 */
final class Sessions
{
    /** Week of 4 May 2031, a Sunday; seconds of the week are those of the day. */
    public const WEEK = 2678;
    private const NOON = 43200.0;
    private const INTERVAL = 30.0;

    /** Occupations: file, marker as typed, mark, begin in hours of GPS time, epochs, antenna height. */
    public const OCCUPATIONS = [
        ['kt01-0900.31o', 'KT01', 'KT01', 9.0, 660, 1.423], ['kt04-0910.31o', 'KT04', 'KT04', 9.1667, 140, 1.511],
        ['kt07-0925.31o', 'KT07', 'KT07', 9.4167, 130, 1.388], ['kt06-1040.31o', 'KT06', 'KT06', 10.6667, 130, 1.602],
        ['kt09-1050.31o', 'KT9', 'KT09', 10.8333, 120, 1.447], ['kt08-1200.31o', 'KT08', 'KT08', 12.0, 212, 1.559],
        ['kt04-1210.31o', 'KT04', 'KT04', 12.1667, 140, 1.474],
    ];

    /** How the receiver on KT08 slid: epochs from and to, and how far east, north and up, metres. */
    public const SLIDE = ['file' => 'kt08-1200.31o', 'from' => 90, 'to' => 102, 'shift' => [-0.016, -0.014, -0.004]];

    public function __construct(private readonly TruthModel $truth)
    {
    }

    /** @return array<string, string> contents by file name */
    public function files(): array
    {
        $sky = new Sky(TruthModel::SEED, self::WEEK, self::NOON, 'GE');
        $files = ['kestrel-tarn-124.31p' => $sky->navigation([28800.0, 36000.0, 43200.0, 50400.0])];
        foreach (self::OCCUPATIONS as $i => [$file, $marker, $mark, $begin, $epochs, $height]) {
            $files[$file] = $sky->observations(new Receiver(
                $marker, $this->antenna($mark, $height, $file === self::SLIDE['file']), $epochs, self::INTERVAL, 1e-5 * ($i - 3),
                Receiver::EVERYTHING, 4.0, round(3600.0 * $begin) - self::NOON, height: $height, header: $this->roughly($mark, $i),
                obstructed: 'KT06' === $mark ? [[200.0, 290.0, 35.0]] : [],
            ));
        }

        return $files;
    }

    /** What the receiver on KT02 wrote in a form of its own, without an exchange format. */
    public function log(): string
    {
        $sky = new Sky(TruthModel::SEED, self::WEEK, self::NOON, 'GE', TruthModel::SEED + 2);
        $rinex = $sky->observations(new Receiver(
            'KT02', $this->antenna('KT02', 1.535, false), 100, self::INTERVAL, 2e-5, Receiver::EVERYTHING, 4.0, 900.0, height: 1.535,
            header: $this->roughly('KT02', 9),
        ));

        return LogWriter::write($rinex, $sky->navigation([self::NOON]));
    }

    /** @return array{float, float, float}|\Closure(int): array{float, float, float} */
    private function antenna(string $mark, float $height, bool $slides): array|\Closure
    {
        if (!$slides) {
            return $this->shifted($mark, 0.0, 0.0, $height);
        }

        return function (int $k) use ($mark, $height): array {
            $part = max(0.0, min(1.0, ($k - self::SLIDE['from']) / (self::SLIDE['to'] - self::SLIDE['from'])));
            [$e, $n, $u] = self::SLIDE['shift'];

            return $this->shifted($mark, $part * $e, $part * $n, $height + $part * $u);
        };
    }

    /**
     * What a receiver by itself believes its place to be.
     *
     * @return array{float, float, float}
     */
    private function roughly(string $mark, int $i): array
    {
        return $this->shifted($mark, 1.9 * sin(2.0 * $i), 2.4 * cos(3.0 * $i), 3.1);
    }

    /** @return array{float, float, float} a place east, north and up of a mark, geocentric */
    private function shifted(string $mark, float $east, float $north, float $up): array
    {
        $i = $this->truth->index[$mark];
        $axes = \array_slice($this->truth->state->axes, 9 * $i, 9);
        $place = [];
        for ($c = 0; $c < 3; ++$c) {
            $place[] = $this->truth->state->position[3 * $i + $c] + $axes[$c] * $east + $axes[3 + $c] * $north + $axes[6 + $c] * $up;
        }

        return [$place[0], $place[1], $place[2]];
    }
}
