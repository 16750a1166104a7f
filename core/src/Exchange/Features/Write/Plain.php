<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

/** Values as text that gives the same value back. */
final class Plain
{
    /** As few figures as are needed, without an exponent. */
    public static function number(float $value): string
    {
        $text = (string) json_encode($value, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);

        return 1 === preg_match('/e/i', $text) ? rtrim(rtrim(\sprintf('%.17F', $value), '0'), '.') : $text;
    }

    public static function text(string|int|float|bool|null $value): string
    {
        return match (true) {
            null === $value => '', \is_bool($value) => $value ? 'true' : 'false', \is_float($value) => self::number($value),
            default => (string) $value,
        };
    }

    /** For XML: what it may not hold is left out. */
    public static function xml(string $text): string
    {
        $other = '/[^\x09\x0A\x0D\x{20}-\x{D7FF}\x{E000}-\x{FFFD}\x{10000}-\x{10FFFF}]/u';
        $allowed = (string) preg_replace($other, '', mb_scrub($text, 'UTF-8'));

        return htmlspecialchars($allowed, \ENT_QUOTES | \ENT_XML1, 'UTF-8');
    }

    /**
     * Names made different from one another, shortened where they must be.
     *
     * @param list<string>            $names
     * @param \Closure(string): string $fit   a name as the format can hold it
     * @param int                     $most  bytes
     * @param list<string>            $taken names that are used otherwise
     *
     * @return array<string, string> by the names given
     */
    public static function different(array $names, \Closure $fit, int $most, array $taken = []): array
    {
        $used = array_fill_keys(array_map(strtolower(...), $taken), true);
        $given = [];
        foreach ($names as $name) {
            $short = mb_strcut($fit($name), 0, $most, 'UTF-8');
            $unique = '' === $short ? 'field' : $short;
            for ($k = 2; isset($used[strtolower($unique)]); ++$k) {
                $unique = mb_strcut($short, 0, $most - \strlen("_$k"), 'UTF-8')."_$k";
            }
            $used[strtolower($unique)] = true;
            $given[$name] = $unique;
        }

        return $given;
    }
}
