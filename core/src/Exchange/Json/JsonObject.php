<?php

declare(strict_types=1);

namespace Mensura\Exchange\Json;

use Mensura\Fault\UnusableInput;

/**
 * An object of a JSON document together with its path in it, so that every fault says where.
 *
 * A member that is absent and one that is null are the same.
 */
final readonly class JsonObject
{
    /** @param array<mixed> $members */
    private function __construct(private array $members, public string $path)
    {
    }

    /**
     * @throws UnusableInput when it is not JSON (NaN and infinities are not) or says another format
     */
    public static function document(string $json, string $format): self
    {
        if (str_starts_with($json, "\xEF\xBB\xBF")) {
            $json = substr($json, 3);
        }
        try {
            $document = json_decode($json, true, 64, \JSON_THROW_ON_ERROR);
        } catch (\JsonException $e) {
            throw new UnusableInput(
                '',
                \sprintf('not JSON (%s); it starts with {"format": "%s", ...}', lcfirst($e->getMessage()), $format),
            );
        }
        if (!\is_array($document) || $format !== ($document['format'] ?? null)) {
            throw new UnusableInput('format', \sprintf('must be "%s"', $format));
        }

        return new self($document, '');
    }

    public function where(string $key): string
    {
        return '' === $this->path ? $key : $this->path.'.'.$key;
    }

    public function has(string $key): bool
    {
        return isset($this->members[$key]);
    }

    public function fault(string $key, string $reason): UnusableInput
    {
        return new UnusableInput($this->where($key), $reason);
    }

    /** An absent object is an empty one. */
    public function object(string $key): self
    {
        return new self($this->isObject($this->members[$key] ?? []) ?? throw $this->fault($key, 'must be an object'), $this->where($key));
    }

    /**
     * @return list<self> at least one
     */
    public function objects(string $key, bool $mayBeEmpty = false): array
    {
        $list = $this->members[$key] ?? null;
        if (!\is_array($list) || !array_is_list($list)) {
            throw $this->fault($key, 'must be a list');
        }
        if ([] === $list && !$mayBeEmpty) {
            throw $this->fault($key, 'there are none');
        }
        $objects = [];
        foreach ($list as $i => $entry) {
            $path = $this->where($key)."[$i]";
            $objects[] = new self($this->isObject($entry) ?? throw new UnusableInput($path, 'must be an object'), $path);
        }

        return $objects;
    }

    /** A name: a text with something in it, or a whole number. */
    public function name(string $key): string
    {
        $name = $this->members[$key] ?? null;
        if (\is_int($name)) {
            return (string) $name;
        }
        if (!\is_string($name) || '' === trim($name)) {
            throw $this->fault($key, null === $name ? 'is missing' : 'must be a name');
        }

        return $name;
    }

    public function number(string $key): ?float
    {
        $value = $this->members[$key] ?? null;
        if (null === $value) {
            return null;
        }
        if (!\is_int($value) && !\is_float($value) || !is_finite((float) $value)) {
            throw $this->fault($key, 'must be a finite number');
        }

        return (float) $value;
    }

    public function required(string $key): float
    {
        return $this->number($key) ?? throw $this->fault($key, 'is missing');
    }

    /** A number from $least to $most, both allowed. */
    public function within(string $key, float $least, float $most, string $unit = ''): ?float
    {
        $value = $this->number($key);
        if (null !== $value && ($value < $least || $value > $most)) {
            throw $this->fault(
                $key,
                \sprintf('is %s; it must lie between %s and %s%s', $value, $least, $most, '' === $unit ? '' : " $unit"),
            );
        }

        return $value;
    }

    public function positive(string $key): ?float
    {
        $value = $this->number($key);
        if (null !== $value && $value <= 0.0) {
            throw $this->fault($key, \sprintf('is %s; it must be positive', $value));
        }

        return $value;
    }

    /** @return ?list<float> */
    public function numbers(string $key): ?array
    {
        $list = $this->members[$key] ?? null;
        if (null === $list) {
            return null;
        }
        $numbers = [];
        foreach (\is_array($list) ? $list : [null] as $value) {
            if (!\is_int($value) && !\is_float($value) || !is_finite((float) $value)) {
                throw $this->fault($key, 'must be a list of finite numbers');
            }
            $numbers[] = (float) $value;
        }

        return $numbers;
    }

    /** @return list<string> an absent list is an empty one */
    public function words(string $key): array
    {
        $words = [];
        foreach ((array) ($this->members[$key] ?? []) as $word) {
            $words[] = \is_string($word) ? $word : throw $this->fault($key, 'must be a list of words');
        }

        return $words;
    }

    public function boolean(string $key): bool
    {
        $value = $this->members[$key] ?? false;

        return \is_bool($value) ? $value : throw $this->fault($key, 'must be true or false');
    }

    /**
     * @template T of string
     *
     * @param list<T> $choices
     *
     * @return ?T
     */
    public function choice(string $key, array $choices): ?string
    {
        $value = $this->members[$key] ?? null;
        foreach ($choices as $choice) {
            if ($choice === $value) {
                return $choice;
            }
        }
        if (null !== $value) {
            throw $this->fault(
                $key,
                \sprintf('must be %s', implode(' or ', array_map(static fn (string $c): string => "\"$c\"", $choices))),
            );
        }

        return null;
    }

    /** @return ?array<mixed> */
    private function isObject(mixed $value): ?array
    {
        return \is_array($value) && ([] === $value || !array_is_list($value)) ? $value : null;
    }
}
