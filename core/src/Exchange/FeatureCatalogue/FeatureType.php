<?php

declare(strict_types=1);

namespace Mensura\Exchange\FeatureCatalogue;

use Mensura\Fault\UnusableInput;

/** A type of feature (ISO 19110, FC_FeatureType): its code, what people call it, how it is drawn, and how it is collected. */
final readonly class FeatureType
{
    public const POINT = 'point';
    public const LINE = 'line';
    public const AREA = 'area';
    public const KINDS = [self::POINT, self::LINE, self::AREA];
    public const STYLES = ['solid', 'dashed', 'dotted'];
    public const SYMBOLS = ['dot', 'circle', 'square', 'triangle', 'cross'];
    public const LOGGING = ['none', 'time', 'distance'];
    public const SOLUTIONS = ['any', 'code', 'carrier'];

    /**
     * @param string                 $alias      for people
     * @param string                 $logging    what a line is logged by: seconds or metres
     * @param int                    $positions  at least so many are averaged to a place
     * @param string                 $solution   that is needed
     * @param float                  $accuracy   standard deviation in plan that is needed, metres; 0 for any
     * @param list<FeatureAttribute> $attributes
     */
    private function __construct(
        public string $code, public string $alias, public string $kind, public string $symbol, public string $style, public string $colour,
        public string $logging, public float $every, public int $positions, public string $solution, public float $accuracy,
        public array $attributes,
    ) {
    }

    /** A code without blanks and signs that other programs cannot hold; nothing where nothing is left. */
    public static function corrected(string $code): string
    {
        return trim((string) preg_replace('/[^\p{L}\p{N}_.-]+/u', '_', trim($code)), '_');
    }

    /**
     * @param array<mixed> $d
     *
     * @throws UnusableInput naming the field, and offering the code that would do
     */
    public static function fromArray(array $d, string $at): self
    {
        $code = \is_string($d['code'] ?? null) ? $d['code'] : '';
        $corrected = self::corrected($code);
        if ('' === $corrected || mb_strlen($code) > 40) {
            throw new UnusableInput("$at/code", 'is letters, digits, _ . and -, 40 at most');
        }
        if ($code !== $corrected) {
            throw new UnusableInput("$at/code", \sprintf('"%s" holds blanks or signs that get lost elsewhere; take %s', $code, $corrected));
        }
        $oneOf = static function (string $key, array $of) use ($d, $at): string {
            $value = $d[$key] ?? $of[0];

            return \is_string($value) && \in_array($value, $of, true) ? $value
                : throw new UnusableInput("$at/$key", 'is one of '.implode(', ', $of));
        };
        $number = static function (string $key, float $else, float $least, float $most) use ($d, $at): float {
            $value = $d[$key] ?? $else;

            return (\is_int($value) || \is_float($value)) && $value >= $least && $value <= $most ? (float) $value
                : throw new UnusableInput("$at/$key", "is a number from $least to $most");
        };
        $attributes = $names = [];
        foreach (array_values((array) ($d['attributes'] ?? [])) as $i => $a) {
            $attribute = FeatureAttribute::fromArray((array) $a, "$at/attributes/$i");
            if (isset($names[mb_strtolower($attribute->name)])) {
                throw new UnusableInput("$at/attributes/$i/name", \sprintf('%s has two attributes called %s', $code, $attribute->name));
            }
            $names[mb_strtolower($attribute->name)] = true;
            $attributes[] = $attribute;
        }
        $colour = \is_string($d['colour'] ?? null) ? $d['colour'] : '#2a5bd7';
        if (1 !== preg_match('/^#[0-9a-f]{6}$/Di', $colour)) {
            throw new UnusableInput("$at/colour", 'is a colour such as #2a5bd7');
        }

        return new self(
            $code, \is_string($d['alias'] ?? null) ? mb_substr($d['alias'], 0, 80) : '', $oneOf('kind', self::KINDS),
            $oneOf('symbol', self::SYMBOLS), $oneOf('style', self::STYLES), $colour, $oneOf('logging', self::LOGGING),
            $number('every', 1.0, 0.01, 100_000.0), (int) $number('positions', 1.0, 1.0, 10_000.0), $oneOf('solution', self::SOLUTIONS),
            $number('accuracy', 0.0, 0.0, 1000.0), $attributes,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['attributes' => array_map(static fn (FeatureAttribute $a): array => $a->toArray(), $this->attributes)]
            + get_object_vars($this);
    }

    /**
     * What is wrong with a feature that was collected.
     *
     * @param int                 $places     how many it has
     * @param int                 $positions  averaged to the place with the fewest
     * @param float               $sd         of the worst place, metres
     * @param array<string, mixed> $attributes by name
     *
     * @return list<string>
     */
    public function faults(int $places, int $positions, string $solution, float $sd, array $attributes): array
    {
        $least = [self::POINT => 1, self::LINE => 2, self::AREA => 3][$this->kind];
        $faults = [];
        if ($places < $least) {
            $faults[] = \sprintf('a %s has at least %d places, this one has %d', $this->kind, $least, $places);
        }
        if ($positions < $this->positions) {
            $faults[] = \sprintf('%d positions are averaged where %d are needed', $positions, $this->positions);
        }
        if ('carrier' === $this->solution && 'carrier' !== $solution || 'code' === $this->solution && 'any' === $solution) {
            $faults[] = \sprintf('needs a %s solution, and has %s', $this->solution, 'any' === $solution ? 'none' : "a $solution one");
        }
        if ($this->accuracy > 0.0 && $sd > $this->accuracy) {
            $faults[] = \sprintf('is known to %.3f m where %.3f m are needed', $sd, $this->accuracy);
        }
        $known = [];
        foreach ($this->attributes as $a) {
            $known[$a->name] = true;
            $fault = $a->fault($attributes[$a->name] ?? null);
            array_push($faults, ...('' === $fault ? [] : [$fault]));
        }
        foreach (array_keys(array_diff_key($attributes, $known)) as $name) {
            $faults[] = \sprintf('%s is no attribute of %s', $name, $this->code);
        }

        return $faults;
    }
}
