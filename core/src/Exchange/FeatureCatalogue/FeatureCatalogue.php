<?php

declare(strict_types=1);

namespace Mensura\Exchange\FeatureCatalogue;

use Mensura\Fault\UnusableInput;

/** Types of features that are collected in the field (ISO 19110); as an open file "mensura-catalogue/1" (docs/formats.md). */
final readonly class FeatureCatalogue
{
    public const FORMAT = 'mensura-catalogue/1';
    private const MOST = 1000;
    private const FLAGS = \JSON_PRETTY_PRINT | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION
        | \JSON_THROW_ON_ERROR;

    /** @param list<FeatureType> $types */
    private function __construct(public string $scope, public array $types)
    {
    }

    /**
     * @param array<mixed> $d
     *
     * @throws UnusableInput naming the field
     */
    public static function fromArray(array $d): self
    {
        $given = $d['types'] ?? [];
        if (!\is_array($given) || \count($given) > self::MOST) {
            throw new UnusableInput('/types', \sprintf('is a list of %d types at most', self::MOST));
        }
        $types = $codes = [];
        foreach (array_values($given) as $i => $type) {
            if (!\is_array($type)) {
                throw new UnusableInput("/types/$i", 'is a type with its code');
            }
            $types[] = $t = FeatureType::fromArray($type, "/types/$i");
            if (isset($codes[mb_strtolower($t->code)])) {
                throw new UnusableInput("/types/$i/code", \sprintf('there are two types with the code %s', $t->code));
            }
            $codes[mb_strtolower($t->code)] = true;
        }

        return new self(\is_string($d['scope'] ?? null) ? mb_substr($d['scope'], 0, 400) : '', $types);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['scope' => $this->scope, 'types' => array_map(static fn (FeatureType $t): array => $t->toArray(), $this->types)];
    }

    /** The open file. */
    public function toJson(string $name, int $version): string
    {
        $file = ['format' => self::FORMAT, 'name' => $name, 'version' => $version] + $this->toArray();

        return json_encode($file, self::FLAGS)."\n";
    }

    /**
     * @return array{string, int, self} name, version, catalogue
     *
     * @throws UnusableInput
     */
    public static function fromJson(string $text): array
    {
        $d = json_decode($text, true, 16);
        if (!\is_array($d) || self::FORMAT !== ($d['format'] ?? null)) {
            throw new UnusableInput('', 'is no catalogue: a JSON file whose format is '.self::FORMAT.' is one');
        }

        return [\is_string($d['name'] ?? null) ? $d['name'] : '', \is_int($d['version'] ?? null) ? $d['version'] : 0, self::fromArray($d)];
    }

    public function type(string $code): ?FeatureType
    {
        foreach ($this->types as $type) {
            if ($type->code === $code) {
                return $type;
            }
        }

        return null;
    }
}
