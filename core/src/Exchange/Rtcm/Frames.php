<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rtcm;

/** Takes a stream of RTCM 10403 (version 3) apart: preamble, length, message, CRC-24Q. */
final class Frames
{
    private const PREAMBLE = "\xd3";
    private const POLYNOMIAL = 0x1864CFB;

    /** Frames whose check does not fit. */
    public int $damaged = 0;

    /** Bytes that belong to no frame. */
    public int $strange = 0;

    /** @return \Generator<string> messages without frame */
    public function of(string $stream): \Generator
    {
        $length = \strlen($stream);
        $at = 0;
        while ($at < $length) {
            $next = strpos($stream, self::PREAMBLE, $at);
            if (false === $next) {
                $this->strange += $length - $at;

                return;
            }
            $this->strange += $next - $at;
            $at = $next;
            if ($at + 6 > $length) {
                $this->strange += $length - $at;

                return;
            }
            $size = ((\ord($stream[$at + 1]) & 3) << 8) | \ord($stream[$at + 2]);
            $isFrame = 0 === (\ord($stream[$at + 1]) & 0xFC) && $at + 6 + $size <= $length;
            $crc = $isFrame ? (\ord($stream[$at + 3 + $size]) << 16) | (\ord($stream[$at + 4 + $size]) << 8) | \ord(
                $stream[$at + 5 + $size],
            ) : -1;
            if (!$isFrame || self::crc(substr($stream, $at, 3 + $size)) !== $crc) {
                $this->damaged += $isFrame ? 1 : 0;
                ++$this->strange;
                ++$at; // the preamble may be an accident: what follows may begin a frame
                continue;
            }
            yield substr($stream, $at + 3, $size);
            $at += 6 + $size;
        }
    }

    /** CRC-24Q over frame and message. */
    public static function crc(string $bytes): int
    {
        static $table = [];
        if ([] === $table) {
            for ($i = 0; $i < 256; ++$i) {
                $c = $i << 16;
                for ($k = 0; $k < 8; ++$k) {
                    $c <<= 1;
                    $c = $c & 0x1000000 ? $c ^ self::POLYNOMIAL : $c;
                }
                $table[] = $c;
            }
        }
        $crc = 0;
        $length = \strlen($bytes);
        for ($i = 0; $i < $length; ++$i) {
            $crc = (($crc << 8) & 0xFFFFFF) ^ $table[($crc >> 16) ^ \ord($bytes[$i])];
        }

        return $crc;
    }
}
