<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rinex;

use Mensura\Exchange\ReceiverLog\ReceiverLog;
use Mensura\Exchange\Rtcm\RtcmReader;
use Mensura\Fault\UnusableInput;

/** What receivers write besides RINEX, told by its contents. */
final class Recorded
{
    /** @throws UnusableInput */
    public static function read(string $bytes, string $name, ?int $week = null): Recording
    {
        $bytes = Packed::contents($bytes, $name);

        return match (self::kindOf($bytes)) {
            'receiver-log' => ReceiverLog::read($bytes, $name),
            'rtcm' => RtcmReader::read($bytes, $name, $week),
            default => throw new UnusableInput($name, 'is neither a receiver log nor an RTCM 3 stream'),
        };
    }

    /** Of the first bytes of a file; null for what is none of them. */
    public static function kindOf(string $head): ?string
    {
        if (str_starts_with(ltrim($head), '{') && str_contains(strtr(substr($head, 0, 200), ['\/' => '/']), '"'.ReceiverLog::FORMAT.'"')) {
            return 'receiver-log';
        }
        // A preamble, six bits of nought, and a message number that is in use.
        $at = strpos(substr($head, 0, 100), "\xd3");
        if (false === $at || \strlen($head) < $at + 6 || 0 !== (\ord($head[$at + 1]) & 0xFC)) {
            return null;
        }
        $number = (\ord($head[$at + 3]) << 4) | (\ord($head[$at + 4]) >> 4);

        return $number >= 1001 && $number <= 1304 || $number >= 4050 ? 'rtcm' : null;
    }
}
