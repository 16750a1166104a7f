<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/** An instant in GPS time: whole weeks since 1980-01-06 and seconds of the week, which keeps it to a tenth of a nanosecond. */
final readonly class GpsTime
{
    public const WEEK = 604800.0;

    public function __construct(public int $week, public float $seconds)
    {
    }

    /** An instant so many seconds after the first one of GPS time, 1980-01-06. */
    public static function after(float $seconds): self
    {
        return self::of(0, $seconds);
    }

    /** Seconds since the first instant, to a quarter of a microsecond. */
    public function sinceEpoch(): float
    {
        return $this->week * self::WEEK + $this->seconds;
    }

    /** The same instant with its seconds within the week. */
    public static function of(int $week, float $seconds): self
    {
        $more = (int) floor($seconds / self::WEEK);

        return new self($week + $more, $seconds - $more * self::WEEK);
    }

    /** Civil date and time of the GPS scale; seconds may be 60 or more. */
    public static function civil(int $year, int $month, int $day, int $hour, int $minute, float $second): self
    {
        $days = intdiv(gmmktime(0, 0, 0, $month, $day, $year) - gmmktime(0, 0, 0, 1, 6, 1980), 86400);

        return self::of(intdiv($days, 7), ($days % 7) * 86400.0 + $hour * 3600.0 + $minute * 60.0 + $second);
    }

    /** Seconds from another instant to this one. */
    public function since(self $other): float
    {
        return ($this->week - $other->week) * self::WEEK + ($this->seconds - $other->seconds);
    }

    public function plus(float $seconds): self
    {
        return self::of($this->week, $this->seconds + $seconds);
    }

    /** As "gps:2031-05-04T09:00:00.000". */
    public function __toString(): string
    {
        $milli = (int) round($this->seconds * 1000.0);
        $days = intdiv($milli, 86400000);
        $rest = $milli - $days * 86400000;
        $date = gmdate('Y-m-d', gmmktime(0, 0, 0, 1, 6, 1980) + ($this->week * 7 + $days) * 86400);

        return \sprintf(
            'gps:%sT%02d:%02d:%02d.%03d', $date, intdiv($rest, 3600000), intdiv($rest, 60000) % 60, intdiv($rest, 1000) % 60, $rest % 1000,
        );
    }
}
