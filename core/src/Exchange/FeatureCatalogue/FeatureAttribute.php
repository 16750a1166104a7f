<?php

declare(strict_types=1);

namespace Mensura\Exchange\FeatureCatalogue;

use Mensura\Fault\UnusableInput;

/** What is asked of every feature of a type: how it is typed, what it may be, what it is where nobody says otherwise. */
final readonly class FeatureAttribute
{
    public const CHOICE = 'choice';
    public const NUMBER = 'number';
    public const TEXT = 'text';
    public const DATE = 'date';
    public const TIME = 'time';
    public const PHOTO = 'photo';
    public const FILE = 'file';
    public const KINDS = [self::CHOICE, self::NUMBER, self::TEXT, self::DATE, self::TIME, self::PHOTO, self::FILE];

    /**
     * @param list<string> $options  of a choice
     * @param string       $default  of a choice or text
     * @param ?float       $least    of a number, in its unit
     * @param int          $length   most letters of a text
     * @param bool         $isFilled of a date or time: filled by itself when the feature is collected
     */
    private function __construct(
        public string $name, public string $kind, public bool $required, public array $options, public string $default,
        public ?float $least, public ?float $most, public int $decimals, public ?float $number, public string $unit, public int $length,
        public bool $isFilled,
    ) {
    }

    /**
     * @param array<mixed> $d
     *
     * @throws UnusableInput naming the field
     */
    public static function fromArray(array $d, string $at): self
    {
        $name = $d['name'] ?? null;
        if (!\is_string($name) || '' === trim($name) || mb_strlen($name) > 60) {
            throw new UnusableInput("$at/name", 'is what the attribute is called, up to 60 letters');
        }
        $kind = $d['kind'] ?? self::TEXT;
        if (!\in_array($kind, self::KINDS, true)) {
            throw new UnusableInput("$at/kind", 'is one of '.implode(', ', self::KINDS));
        }
        $isText = static fn (mixed $o): bool => \is_string($o) && '' !== trim($o);
        $options = array_values(array_filter((array) ($d['options'] ?? []), $isText));
        if (self::CHOICE === $kind && [] === $options) {
            throw new UnusableInput("$at/options", \sprintf('%s is a choice without anything to choose', $name));
        }
        $default = \is_string($d['default'] ?? null) ? $d['default'] : '';
        if (self::CHOICE === $kind && '' !== $default && !\in_array($default, $options, true)) {
            throw new UnusableInput("$at/default", \sprintf('"%s" is none of the choices of %s', $default, $name));
        }
        $number = static fn (string $key): ?float => \is_int($d[$key] ?? null) || \is_float($d[$key] ?? null) ? (float) $d[$key] : null;
        [$least, $most, $usual] = [$number('least'), $number('most'), $number('number')];
        if (null !== $least && null !== $most && $least > $most) {
            throw new UnusableInput("$at/least", \sprintf('of %s is more than its greatest', $name));
        }
        if (null !== $usual && ($usual < ($least ?? -\INF) || $usual > ($most ?? \INF))) {
            throw new UnusableInput("$at/number", \sprintf('of %s lies outside its range', $name));
        }
        $decimals = \is_int($d['decimals'] ?? null) ? max(0, min(9, $d['decimals'])) : 2;
        $length = \is_int($d['length'] ?? null) ? max(1, min(4000, $d['length'])) : 80;

        return new self(
            trim($name), $kind, true === ($d['required'] ?? false), $options, $default, $least, $most, $decimals, $usual,
            \is_string($d['unit'] ?? null) ? mb_substr($d['unit'], 0, 20) : '', $length, false !== ($d['isFilled'] ?? true),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return get_object_vars($this);
    }

    /** What is wrong with a value; empty where nothing is. */
    public function fault(mixed $value): string
    {
        if (null === $value || '' === $value) {
            return $this->required ? "$this->name is missing" : '';
        }
        $text = \is_scalar($value) ? (string) $value : '';

        return match ($this->kind) {
            self::CHOICE => \in_array($text, $this->options, true) ? ''
                : \sprintf('"%s" is none of the choices of %s: %s', $text, $this->name, implode(', ', $this->options)),
            self::NUMBER => $this->numberFault($text),
            self::TEXT => mb_strlen($text) <= $this->length ? '' : \sprintf('%s is longer than %d letters', $this->name, $this->length),
            self::DATE => self::isDate($text, '!Y-m-d') ? '' : \sprintf('%s is no date such as 2031-05-04', $this->name),
            self::TIME => self::isDate($text, '!H:i:s') ? '' : \sprintf('%s is no time such as 16:02:30', $this->name),
            default => '',
        };
    }

    private function numberFault(string $text): string
    {
        if (!is_numeric($text)) {
            return \sprintf('%s is no number: "%s"', $this->name, $text);
        }
        $value = (float) $text;
        if ($value < ($this->least ?? -\INF) || $value > ($this->most ?? \INF)) {
            $words = '%s is %s%s, outside %s to %s';
            $unit = '' === $this->unit ? '' : " $this->unit";

            return \sprintf($words, $this->name, $text, $unit, $this->least ?? 'any', $this->most ?? 'any');
        }

        return abs($value - round($value, $this->decimals)) < 1e-12 ? ''
            : \sprintf('%s has more than %d decimals', $this->name, $this->decimals);
    }

    private static function isDate(string $text, string $format): bool
    {
        $read = \DateTimeImmutable::createFromFormat($format, $text);

        return false !== $read && $read->format(ltrim($format, '!')) === $text;
    }
}
