<?php

declare(strict_types=1);

namespace App\Api;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\TypeInfo\Type;
use Symfony\Component\TypeInfo\Type\ArrayShapeType;
use Symfony\Component\TypeInfo\Type\BuiltinType;
use Symfony\Component\TypeInfo\Type\CollectionType;
use Symfony\Component\TypeInfo\Type\GenericType;
use Symfony\Component\TypeInfo\Type\NullableType;
use Symfony\Component\TypeInfo\Type\ObjectType;
use Symfony\Component\TypeInfo\Type\UnionType;
use Symfony\Component\TypeInfo\TypeIdentifier;
use Symfony\Component\TypeInfo\TypeResolver\TypeResolver;

/** TypeScript types of every view and request, from the PHP classes. With --check, fails when the written file differs. */
#[AsCommand('mensura:types', 'Writes frontend/src/api/types.ts from the PHP classes')]
final class TypesCommand extends Command
{
    private const FILE = '/frontend/src/api/types.ts';

    public function __construct(#[Autowire('%kernel.project_dir%')] private readonly string $root)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('check', null, InputOption::VALUE_NONE, 'Compare only');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $types = $this->types();
        if (!$input->getOption('check')) {
            file_put_contents($this->root.self::FILE, $types);

            return self::SUCCESS;
        }
        if ($types === @file_get_contents($this->root.self::FILE)) {
            return self::SUCCESS;
        }
        $output->writeln('frontend/src/api/types.ts differs from the PHP classes; run bin/console mensura:types.');

        return self::FAILURE;
    }

    private function types(): string
    {
        $resolver = TypeResolver::create();
        $text = "// Made by bin/console mensura:types from the PHP classes; do not edit.\n";
        $files = array_merge(glob($this->root.'/src/*/View/*.php') ?: [], glob($this->root.'/src/*/Request/*.php') ?: []);
        sort($files);
        foreach ($files as $file) {
            /** @var class-string $name */
            $name = 'App\\'.strtr(substr($file, \strlen($this->root.'/src/'), -4), '/', '\\');
            $class = new \ReflectionClass($name);
            if (!$class->hasMethod('__construct')) {
                continue;
            }
            if (str_contains($text, "export interface {$class->getShortName()} {")) {
                throw new \LogicException("$name: another class of the interface has this name.");
            }
            $doc = trim(preg_replace('/^\s*\/?\*+\/?/m', '', (string) $class->getDocComment()) ?? '', " \n/*");
            $doc = preg_replace('/\s*\n\s*/', ' ', $doc);
            $text .= "\n/** $doc */\nexport interface {$class->getShortName()} {\n";
            foreach ($class->getConstructor()?->getParameters() ?? [] as $parameter) {
                $optional = str_contains($file, '/Request/') && $parameter->isOptional() ? '?' : '';
                $text .= "  {$parameter->getName()}$optional: "
                    .$this->typeScript($resolver->resolve($class->getProperty($parameter->getName()))).";\n";
            }
            $text .= "}\n";
        }

        return $text;
    }

    private function identifier(Type $type): ?TypeIdentifier
    {
        $wrapped = $type instanceof CollectionType ? $type->getWrappedType() : $type;
        $wrapped = $wrapped instanceof GenericType ? $wrapped->getWrappedType() : $wrapped;

        return $wrapped instanceof BuiltinType ? $wrapped->getTypeIdentifier() : null;
    }

    private function typeScript(Type $type): string
    {
        if ($type instanceof NullableType) {
            return $this->typeScript($type->getWrappedType()).' | null';
        }
        if ($type instanceof ArrayShapeType) {
            $members = [];
            foreach ($type->getShape() as $key => $member) {
                $members[] = $key.($member['optional'] ? '?' : '').': '.$this->typeScript($member['type']);
            }

            return '{ '.implode('; ', $members).' }';
        }
        if ($type instanceof UnionType) {
            return implode(' | ', array_unique(array_map($this->typeScript(...), $type->getTypes())));
        }
        if ($type instanceof CollectionType) {
            $value = $this->typeScript($type->getCollectionValueType());
            if ($type->isList() || TypeIdentifier::ITERABLE === $this->identifier($type)) {
                return str_contains($value, ' ') ? "($value)[]" : $value.'[]';
            }

            return "Record<string, $value>";
        }
        if ($type instanceof ObjectType) {
            return substr((string) strrchr('\\'.$type->getClassName(), '\\'), 1);
        }
        if ($type instanceof BuiltinType) {
            return match ($type->getTypeIdentifier()) {
                TypeIdentifier::INT, TypeIdentifier::FLOAT => 'number',
                TypeIdentifier::STRING => 'string',
                TypeIdentifier::BOOL, TypeIdentifier::TRUE, TypeIdentifier::FALSE => 'boolean',
                TypeIdentifier::NULL => 'null',
                default => 'unknown',
            };
        }
        throw new \LogicException('No TypeScript for '.$type);
    }
}
