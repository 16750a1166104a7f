<?php

declare(strict_types=1);

namespace App\Baselines;

/** Two occupations that recorded together, base first. Seconds of GPS time since its first instant; metres. */
final readonly class Pair
{
    /**
     * @param string $session day of the year and time at which both began to record
     * @param ?float $length  from coordinates of the project or of the files
     */
    public function __construct(
        public Occupation $base, public Occupation $rover, public float $from, public float $to, public string $session,
        public bool $isIndependent, public ?float $length,
    ) {
    }

    public function key(): string
    {
        return self::keyOf($this->base, $this->rover);
    }

    /** The same whichever of the two is the base. */
    public static function keyOf(Occupation $a, Occupation $b): string
    {
        return min($a->id(), $b->id()).'-'.max($a->id(), $b->id());
    }

    /** Place of its static solutions among the results. */
    public function slot(): string
    {
        return Slots::STATIC.$this->key();
    }

    public function words(): string
    {
        return \sprintf('%s → %s, %s', $this->base->marker, $this->rover->marker, $this->session);
    }

    /** Day of the year and time, GPS: stays when other files come, and when a session is trimmed. */
    public static function sessionOf(Occupation $a, Occupation $b): string
    {
        $seconds = max($a->recorded()->from, $b->recorded()->from);
        $unix = (int) round($seconds) + (int) gmmktime(0, 0, 0, 1, 6, 1980);

        return \sprintf('%03d %s', 1 + (int) gmdate('z', $unix), gmdate('H:i', $unix));
    }
}
