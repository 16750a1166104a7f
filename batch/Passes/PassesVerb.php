<?php

declare(strict_types=1);

namespace Batch\Passes;

use Batch\JsonVerb;
use Mensura\Exchange\PassesJson\PassesJsonReader;
use Mensura\Exchange\PassesJson\PassesJsonWriter;
use Mensura\Exchange\PassesJson\TimedCsv;
use Mensura\Exchange\PassesJson\TrajectoryVersions;
use Mensura\Passes\Pass;
use Mensura\Passes\PassAlignment;
use Mensura\Passes\PassesResult;
use Mensura\Passes\PassSet;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;

#[AsCommand('passes', 'Repeated drives tied to control and to each other, mensura-passes/1; prints mensura-passes-result/1 JSON')]
final class PassesVerb extends JsonVerb
{
    protected static function document(): string
    {
        return 'passes, PASSES.json';
    }

    protected function configure(): void
    {
        parent::configure();
        $this->addOption('out', null, InputOption::VALUE_REQUIRED, 'folder the corrected trajectories are written to, each a new version');
    }

    protected function compute(string $json, InputInterface $input): array
    {
        gc_disable();
        $reader = new PassesJsonReader(\dirname(self::onlyFile($input, 'passes')));
        $set = $reader->read($json);
        $out = self::text($input, 'out');
        $folder = null;
        if (null !== $out) {
            TrajectoryVersions::refuseNames(array_map(static fn (Pass $p): string => $p->id, $set->passes));
            $folder = new TrajectoryVersions($out);
        }
        $result = PassAlignment::of($set);

        return PassesJsonWriter::document($set, $result, null === $folder ? [] : self::written($folder, $reader, $set, $result));
    }

    /** @return list<?array{file: string, from: string, method: string, number: int}> */
    private static function written(TrajectoryVersions $folder, PassesJsonReader $reader, PassSet $set, PassesResult $result): array
    {
        $versions = [];
        foreach ($set->passes as $p => $pass) {
            if (PassesResult::NONE === $result->method($p)) {
                $versions[] = null;
                continue;
            }
            $from = $reader->trajectories[$pass->id];
            [$file, $number] = $folder->write($pass->id, new TimedCsv($reader->path($from), $from), $result->correction($p));
            $versions[] = ['file' => $file, 'from' => $from, 'method' => $result->method($p), 'number' => $number];
        }

        return $versions;
    }
}
