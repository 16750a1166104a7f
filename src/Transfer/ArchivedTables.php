<?php

declare(strict_types=1);

namespace App\Transfer;

use App\Account\User;
use App\Job\Job;
use App\Project\Membership;
use App\Project\Project;
use App\Store\ExactFloat;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\Mapping\ClassMetadata;

/** The tables a project consists of, as the mapping of the entities says: all that belong to it but members and jobs. */
final class ArchivedTables
{
    public const PROJECT = 'project';
    public const PEOPLE = 'account';

    /** @var ?array<string, ClassMetadata<object>> */
    private ?array $classes = null;

    public function __construct(private readonly EntityManagerInterface $entities)
    {
    }

    /** @return list<string> in an order in which each refers to those before it only */
    public function names(): array
    {
        return array_keys($this->classes());
    }

    public function has(string $table): bool
    {
        return isset($this->classes()[$table]);
    }

    /** @return list<string> of a table, without its number, sorted */
    public function columns(string $table): array
    {
        $class = $this->classes()[$table];
        $columns = array_values(array_diff($class->getColumnNames(), $class->getIdentifierColumnNames()));
        $columns = [...$columns, ...array_keys($this->refers($table))];
        sort($columns);

        return $columns;
    }

    /** @return array<string, string> table by the column that refers to it */
    public function refers(string $table): array
    {
        $class = $this->classes()[$table];
        $refers = [];
        foreach ($class->getAssociationNames() as $field) {
            if ($class->isSingleValuedAssociation($field)) {
                $target = $this->entities->getClassMetadata($class->getAssociationTargetClass($field));
                $refers[$class->getSingleAssociationJoinColumnName($field)] = $target->getTableName();
            }
        }

        return $refers;
    }

    /** @return array<string, array{string, bool}> "text", "number", "real" or "truth", and whether it may be empty, by column */
    public function types(string $table): array
    {
        $class = $this->classes()[$table];
        $types = [];
        foreach ($class->getFieldNames() as $field) {
            $type = match ((string) $class->getTypeOfField($field)) {
                ExactFloat::NAME, 'float' => 'real',
                'integer', 'smallint', 'bigint' => 'number',
                'boolean' => 'truth',
                default => 'text',
            };
            $types[$class->getColumnName($field)] = [$type, $class->isNullable($field)];
        }
        foreach (array_keys($this->refers($table)) as $column) {
            $types[$column] = ['number', true];
        }

        return $types;
    }

    /** @return array<string, ClassMetadata<object>> */
    private function classes(): array
    {
        if (null !== $this->classes) {
            return $this->classes;
        }
        $classes = [];
        foreach ($this->entities->getMetadataFactory()->getAllMetadata() as $class) {
            $name = $class->getName();
            if ($class->isMappedSuperclass || \in_array($name, [Membership::class, Job::class, User::class], true)) {
                continue;
            }
            $targets = array_map($class->getAssociationTargetClass(...), $class->getAssociationNames());
            if (Project::class === $name || \in_array(Project::class, $targets, true)) {
                $classes[$class->getTableName()] = $class;
            }
        }
        ksort($classes);
        $ordered = [];
        while (\count($ordered) < \count($classes)) {
            foreach ($classes as $table => $class) {
                $targets = array_map($class->getAssociationTargetClass(...), $class->getAssociationNames());
                $before = array_map(fn (string $t): string => $this->entities->getClassMetadata($t)->getTableName(), $targets);
                if ([] === array_diff($before, [self::PEOPLE], array_keys($ordered))) {
                    $ordered[$table] = $class;
                }
            }
        }

        return $this->classes = $ordered;
    }
}
