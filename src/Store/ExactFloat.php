<?php

declare(strict_types=1);

namespace App\Store;

use Doctrine\DBAL\Platforms\AbstractPlatform;
use Doctrine\DBAL\Types\Type;

/**
 * A float that keeps its last bit: PDO hands floats to SQLite as text, and SQLite's own reading of seventeen digits may
 * miss it; a value that came back otherwise could not be undone.
 */
final class ExactFloat extends Type
{
    public const NAME = 'exact';

    public function getSQLDeclaration(array $column, AbstractPlatform $platform): string
    {
        return $platform->getFloatDeclarationSQL($column);
    }

    public function convertToDatabaseValueSQL(string $sqlExpr, AbstractPlatform $platform): string
    {
        return SqlitePragmas::EXACT.'('.$sqlExpr.')';
    }

    public function convertToDatabaseValue(mixed $value, AbstractPlatform $platform): ?string
    {
        return self::text($value);
    }

    public function convertToPHPValue(mixed $value, AbstractPlatform $platform): ?float
    {
        return null === $value ? null : (float) $value;
    }

    /** The shortest decimal text that reads back to the same float. */
    public static function text(mixed $value): ?string
    {
        return null === $value ? null : json_encode((float) $value, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);
    }
}
