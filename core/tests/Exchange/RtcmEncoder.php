<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

/** Writes RTCM 3 messages bit by bit after the tables of RTCM 10403.3, for reading tests; shares no code with the reader. */
final class RtcmEncoder
{
    private string $bits = '';

    public function put(int $value, int $width): self
    {
        $this->bits .= substr(str_pad(decbin($value & ((1 << $width) - 1)), $width, '0', \STR_PAD_LEFT), -$width);

        return $this;
    }

    public function frame(): string
    {
        $bits = str_pad($this->bits, 8 * (int) ceil(\strlen($this->bits) / 8), '0');
        $message = '';
        foreach (str_split($bits, 8) as $byte) {
            $message .= \chr((int) bindec($byte));
        }
        $frame = "\xd3".\chr(\strlen($message) >> 8).\chr(\strlen($message) & 255).$message;
        // CRC-24Q by long division, bit after bit.
        $rest = 0;
        foreach (str_split($frame."\0\0\0") as $char) {
            for ($k = 7; $k >= 0; --$k) {
                $rest = ($rest << 1) | ((\ord($char) >> $k) & 1);
                $rest = $rest & 0x1000000 ? $rest ^ 0x1864CFB : $rest;
            }
        }

        return $frame.\chr($rest >> 16).\chr(($rest >> 8) & 255).\chr($rest & 255);
    }

    /**
     * A message of kind 7: both bands of GPS satellites.
     *
     * @param array<int, array{code: array{float, float}, phase: array{float, float}, strength: float, lock: int}> $satellites by number;
     *     metres
     */
    public static function msm7(float $seconds, array $satellites): string
    {
        $e = new self();
        $e->put(1077, 12)->put(2003, 12)->put(
            (int) round(1000.0 * $seconds), 30,
        )->put(0, 1)->put(0, 3)->put(0, 7)->put(0, 2)->put(0, 2)->put(0, 1)->put(0, 3);
        for ($k = 1; $k <= 64; ++$k) {
            $e->put(isset($satellites[$k]) ? 1 : 0, 1);
        }
        for ($k = 1; $k <= 32; ++$k) {
            $e->put(2 === $k || 10 === $k ? 1 : 0, 1); // 1C and 2W
        }
        ksort($satellites);
        foreach ($satellites as $unused) {
            $e->put(3, 2);
        }
        $ms = 299792.458;
        $rough = array_map(static fn (array $s): int => (int) round($s['code'][0] / $ms * 1024.0), $satellites);
        foreach ($rough as $r) {
            $e->put($r >> 10, 8);
        }
        foreach ($rough as $unused) {
            $e->put(0, 4);
        }
        foreach ($rough as $r) {
            $e->put($r & 1023, 10);
        }
        foreach ($rough as $unused) {
            $e->put(-5, 14);
        }
        foreach ($satellites as $k => $s) {
            foreach ($s['code'] as $metres) {
                $e->put((int) round(($metres / $ms - $rough[$k] / 1024.0) * 2 ** 29), 20);
            }
        }
        foreach ($satellites as $k => $s) {
            foreach ($s['phase'] as $metres) {
                $e->put((int) round(($metres / $ms - $rough[$k] / 1024.0) * 2 ** 31), 24);
            }
        }
        foreach ($satellites as $s) {
            $e->put($s['lock'], 10)->put($s['lock'], 10);
        }
        foreach ($satellites as $unused) {
            $e->put(0, 1)->put(0, 1);
        }
        foreach ($satellites as $s) {
            $e->put((int) round(16.0 * $s['strength']), 10)->put((int) round(16.0 * $s['strength']), 10);
        }
        foreach ($satellites as $unused) {
            $e->put(0, 15)->put(0, 15);
        }

        return $e->frame();
    }

    /** Broadcast elements of GPS satellite 5, week 2678 (2048 + 630), with values that are whole counts of their scales. */
    public static function gps(): string
    {
        return (new self())->put(1019, 12)->put(5, 6)->put(630, 10)->put(0, 4)->put(0, 2)->put(-21, 14)->put(77, 8)->put(2700, 16)
            ->put(0, 8)->put(-12, 16)
            ->put(123456, 22)->put(77, 10)->put(-640, 16)->put(12000, 16)->put(-1500000000, 32)->put(-321, 16)->put(85899346, 32)
            ->put(4321, 16)
            ->put(2702069850, 32)->put(2700, 16)->put(55, 16)->put(700000000, 32)->put(-44, 16)->put(656175672, 32)->put(6400, 16)
            ->put(-900000000, 32)
            ->put(-22000, 24)->put(-20, 8)->put(0, 6)->put(0, 1)->put(0, 1)->frame();
    }
}
