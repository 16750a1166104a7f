<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Store\ExactFloat;
use App\Store\Versioned;
use Doctrine\DBAL\Platforms\AbstractPlatform;
use Doctrine\DBAL\Types\Type;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\Mapping\ClassMetadata;

/** Turns values of an entity's fields into those of its row. */
final class RowImage
{
    private readonly AbstractPlatform $platform;

    public function __construct(private readonly EntityManagerInterface $entities)
    {
        $this->platform = $entities->getConnection()->getDatabasePlatform();
    }

    /**
     * @param ClassMetadata<object> $class
     * @param array<string, mixed>  $data  by field
     *
     * @return array<string, mixed> by column, without the id and the version
     */
    public function of(ClassMetadata $class, array $data): array
    {
        $row = [];
        foreach ($data as $field => $value) {
            // Original data may hold columns of associations beside the associations themselves.
            if ($class->isIdentifier($field) || !$class->hasField($field) && !$class->hasAssociation($field)) {
                continue;
            }
            if ($class->hasAssociation($field)) {
                $row[$class->getSingleAssociationJoinColumnName($field)] = $this->idOf($value);
                continue;
            }
            $column = $class->getColumnName($field);
            if (Versioned::COLUMN !== $column) {
                $row[$column] = $this->value((string) $class->getTypeOfField($field), $value);
            }
        }

        return $row;
    }

    private function idOf(mixed $entity): ?int
    {
        return \is_object($entity) ? (int) $this->entities->getUnitOfWork()->getSingleIdentifierValue($entity) : null;
    }

    private function value(string $type, mixed $value): mixed
    {
        if ($value instanceof \BackedEnum) {
            $value = $value->value;
        }
        if (ExactFloat::NAME === $type || 'float' === $type) {
            return null === $value ? null : (float) $value;
        }

        return Type::getType($type)->convertToDatabaseValue($value, $this->platform);
    }
}
