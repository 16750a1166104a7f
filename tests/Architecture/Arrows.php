<?php

declare(strict_types=1);

namespace App\Tests\Architecture;

use PHPat\Selector\Selector;
use PHPat\Selector\SelectorInterface;
use PHPat\Test\Attributes\TestRule;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/**
 * The arrows of docs/architecture.md, checked with the static analysis. What a folder may import is listed; all the rest
 * it may not. A new folder is one line here: {@see HouseTest} fails until it is.
 */
final class Arrows
{
    /** Of core/src, from the ground up. */
    public const CORE = [
        'Fault' => [],
        'Quantity' => ['Fault'],
        'LinearAlgebra' => ['Fault'],
        'Statistics' => ['Fault'],
        'Geodesy' => ['Fault', 'Quantity'],
        'Reference' => ['Fault', 'Quantity', 'LinearAlgebra', 'Geodesy'],
        'Observation' => ['Fault', 'Quantity'],
        'Network' => ['Fault', 'Quantity', 'LinearAlgebra', 'Statistics', 'Geodesy', 'Reference', 'Observation'],
        'Mesh' => ['Fault'],
        'Parallel' => [],
        'Surface' => ['Fault', 'Quantity', 'Mesh', 'Parallel'],
        'Section' => ['Fault', 'Surface'],
        'Alignment' => ['Fault', 'Section'],
        'Earthworks' => ['Fault'],
        'Deviation' => ['Fault', 'LinearAlgebra', 'Mesh'],
        'Cloud' => ['Fault', 'LinearAlgebra'],
        'Passes' => ['Fault', 'LinearAlgebra', 'Cloud'],
        'Image' => ['Fault', 'LinearAlgebra'],
        'Matching' => ['Fault', 'Image'],
        'Flight' => ['Fault', 'Image', 'Matching', 'Cloud'],
        'Rays' => ['Image', 'Flight'],
        'StakeOut' => [],
        'Plot' => ['Fault'],
        'Graph' => [],
        'TotalStation' => ['Fault'],
        'Traverse' => ['Fault', 'Observation', 'Network'],
        'Levelling' => ['Fault', 'Graph'],
        'Gnss' => ['Fault', 'LinearAlgebra', 'Statistics', 'Geodesy', 'Graph'],
        'Exchange' => [
            'Fault', 'Quantity', 'LinearAlgebra', 'Geodesy', 'Reference', 'Observation', 'Network', 'Surface', 'Section',
            'Alignment', 'TotalStation', 'Traverse', 'Levelling', 'Gnss', 'Cloud', 'Image', 'Passes',
        ],
    ];

    /** What the application stands on, from the ground up: each may import those before it. */
    public const STACK = [
        'Store', 'Api', 'Account', 'Project', 'Job', 'Ledger', 'Result', 'Review', 'Course', 'Transfer', 'Survey', 'Reference', 'Design',
        'Export',
    ];

    /** Each may import the stack, and no other stage: they meet in its interfaces. */
    public const STAGES = ['Intake', 'Baselines', 'Network', 'Terrain', 'Clouds', 'Checks', 'HandOver'];

    /** @return iterable<Rule> */
    #[TestRule]
    public function coreFoldersImportWhatIsListed(): iterable
    {
        foreach (self::CORE as $folder => $allowed) {
            yield self::only('Mensura\\', $folder, $allowed, array_keys(self::CORE));
        }
    }

    #[TestRule]
    public function coreKnowsNoFramework(): Rule
    {
        return PHPat::rule()->classes(Selector::inNamespace('Mensura'))->excluding(Selector::inNamespace('Mensura\Tests'))
            ->shouldNotDependOn()->classes(...self::namespaces('App', 'Batch', 'Demo', 'Symfony', 'Doctrine', 'League', 'Setasign'))
            ->because('the computation stands on its own');
    }

    #[TestRule]
    public function batchKnowsOnlyCore(): Rule
    {
        return PHPat::rule()->classes(Selector::inNamespace('Batch'))
            ->shouldNotDependOn()->classes(...self::namespaces(
                'App', 'Doctrine', 'Demo',
            ))->because('batch verbs run without the web application');
    }

    /** @return iterable<Rule> */
    #[TestRule]
    public function theApplicationIsAStack(): iterable
    {
        $all = [...self::STACK, ...self::STAGES];
        foreach (self::STACK as $i => $folder) {
            yield self::only('App\\', $folder, \array_slice(self::STACK, 0, $i), $all);
        }
        foreach (self::STAGES as $stage) {
            yield self::only('App\\', $stage, self::STACK, $all);
        }
    }

    /** Statements and connections belong to repositories, and there to their bulk methods. */
    #[TestRule]
    public function databaseIsForRepositories(): Rule
    {
        return PHPat::rule()->classes(Selector::inNamespace('App'))
            ->excluding(
                Selector::classname('/Repository$/', true), Selector::classname('App\Ledger\BulkRows'), Selector::inNamespace('App\Store'),
                Selector::inNamespace('App\Tests'),
            )
            ->shouldNotDependOn()->classes(Selector::classname('Doctrine\DBAL\Connection'), Selector::classname('Doctrine\DBAL\Statement'))
            ->because('stages speak entities, repositories and read models');
    }

    /**
     * @param non-empty-string       $root
     * @param non-empty-string       $folder
     * @param list<string>           $allowed
     * @param list<non-empty-string> $all
     */
    private static function only(string $root, string $folder, array $allowed, array $all): Rule
    {
        $forbidden = array_map(static fn (string $f): string => $root.$f, array_values(array_diff($all, $allowed, [$folder])));
        // A folder that may import every other has none to be forbidden; its own tests are never imported.
        $forbidden[] = $root.'Tests';

        return PHPat::rule()->classes(Selector::inNamespace($root.$folder))->shouldNotDependOn()
            ->classes(...self::namespaces(...$forbidden))
            ->because($folder.' imports '.([] === $allowed ? 'nothing' : implode(', ', $allowed)).' only');
    }

    /**
     * @param non-empty-string ...$names
     *
     * @return list<SelectorInterface>
     */
    private static function namespaces(string ...$names): array
    {
        return array_values(array_map(static fn (string $n): SelectorInterface => Selector::inNamespace($n), $names));
    }
}
