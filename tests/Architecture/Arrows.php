<?php

declare(strict_types=1);

namespace App\Tests\Architecture;

use PHPat\Selector\Selector;
use PHPat\Test\Attributes\TestRule;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** The arrows of docs/architecture.md, checked with the static analysis: lower never imports higher. */
final class Arrows
{
    /** Core folders from the ground up; a folder may import those before it. */
    private const CORE = ['Fault', 'Quantity', 'LinearAlgebra', 'Statistics', 'Geodesy', 'Reference', 'Observation', 'Network', 'Surface', 'Exchange'];

    /** @return iterable<Rule> */
    #[TestRule]
    public function coreFoldersOnlyLookDown(): iterable
    {
        foreach (self::CORE as $i => $folder) {
            $higher = array_map(static fn (string $f) => Selector::inNamespace('Mensura\\'.$f), \array_slice(self::CORE, $i + 1));
            if ([] !== $higher) {
                yield PHPat::rule()->classes(Selector::inNamespace('Mensura\\'.$folder))->shouldNotDependOn()->classes(...$higher)->because($folder.' lies below them');
            }
        }
    }

    #[TestRule]
    public function coreKnowsNoFramework(): Rule
    {
        return PHPat::rule()->classes(Selector::inNamespace('Mensura'))->excluding(Selector::inNamespace('Mensura\Tests'))
            ->shouldNotDependOn()->classes(Selector::inNamespace('App'), Selector::inNamespace('Batch'), Selector::inNamespace('Demo'), Selector::inNamespace('Symfony'), Selector::inNamespace('Doctrine'), Selector::inNamespace('League'), Selector::inNamespace('Dompdf'))
            ->because('the computation stands on its own');
    }

    #[TestRule]
    public function batchKnowsOnlyCore(): Rule
    {
        return PHPat::rule()->classes(Selector::inNamespace('Batch'))->shouldNotDependOn()->classes(Selector::inNamespace('App'), Selector::inNamespace('Symfony'), Selector::inNamespace('Doctrine'))->because('batch verbs run without the web application');
    }

    /** What everything stands on knows no stage. */
    #[TestRule]
    public function foundationsKnowNoStage(): Rule
    {
        return PHPat::rule()->classes(Selector::inNamespace('App\Store'), Selector::inNamespace('App\Job'), Selector::inNamespace('App\Ledger'))
            ->shouldNotDependOn()->classes(Selector::inNamespace('App\Intake'), Selector::inNamespace('App\Network'), Selector::inNamespace('App\Terrain'), Selector::inNamespace('App\HandOver'))
            ->because('stages stand on them, not the other way round');
    }

    /** What coordinates mean is asked by every stage and asks none. */
    #[TestRule]
    public function referenceKnowsNoOtherStage(): Rule
    {
        return PHPat::rule()->classes(Selector::inNamespace('App\Reference'))->shouldNotDependOn()->classes(Selector::inNamespace('App\Intake'), Selector::inNamespace('App\Network'), Selector::inNamespace('App\Terrain'), Selector::inNamespace('App\HandOver'))->because('every stage stands on the reference');
    }

    /** Later stages read earlier ones, never the other way round. */
    #[TestRule]
    public function stagesFollowTheCourse(): Rule
    {
        return PHPat::rule()->classes(Selector::inNamespace('App\Intake'), Selector::inNamespace('App\Network'))->shouldNotDependOn()->classes(Selector::inNamespace('App\Terrain'), Selector::inNamespace('App\HandOver'))->because('the course runs from Intake to Hand-over');
    }

    #[TestRule]
    public function terrainDoesNotKnowHandOver(): Rule
    {
        return PHPat::rule()->classes(Selector::inNamespace('App\Terrain'))->shouldNotDependOn()->classes(Selector::inNamespace('App\HandOver'))->because('the course runs from Intake to Hand-over');
    }
}
