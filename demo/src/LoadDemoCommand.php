<?php

declare(strict_types=1);

namespace Demo;

use App\Account\Membership;
use App\Account\Role;
use App\Account\User;
use App\HandOver\Exporter;
use App\Intake\AcceptFile;
use App\Intake\Meaning;
use App\Intake\Placer;
use App\Intake\SurveyFile;
use App\Ledger\Ledger;
use App\Ledger\Results;
use App\Network\AcceptCoordinates;
use App\Network\Adjuster;
use App\Network\SetUse;
use App\Project\Project;
use App\Reference\KeepRow;
use App\Store\FileStore;
use App\Terrain\ComputeVolume;
use App\Terrain\DefineSurface;
use App\Terrain\SurfaceDefinition;
use App\Terrain\SurfaceMaker;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Mensura\Exchange\Delimited\DelimitedTable;
use Mensura\Exchange\Delimited\Mapping;
use Mensura\Reference\Localization\Choices;
use Mensura\Reference\Localization\Fitter;
use Mensura\Reference\Localization\LocalizationJson;
use Mensura\Reference\Localization\Pair;
use Psr\Clock\ClockInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;

/** Loads the demo project through the same operations the interface uses, so that its ledger tells the story. */
#[AsCommand('mensura:demo', 'Loads the demo accounts and the project Kestrel Tarn')]
final class LoadDemoCommand extends Command
{
    public const PROJECT = 'Kestrel Tarn refurbishment';
    public const PASSWORD = 'open field book';

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Connection $connection,
        private readonly UserPasswordHasherInterface $hasher,
        private readonly FileStore $store,
        private readonly Placer $placer,
        private readonly Ledger $ledger,
        private readonly Results $results,
        private readonly Adjuster $adjuster,
        private readonly SurfaceMaker $surfaces,
        private readonly Exporter $exporter,
        private readonly ClockInterface $clock,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('files-only', null, InputOption::VALUE_REQUIRED, 'Write the field files into this folder and stop');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $files = (new Generator(new TruthModel()))->files();
        $site = (new Generator(new TruthModel()))->siteFiles();
        if (\is_string($folder = $input->getOption('files-only'))) {
            foreach ($files + ['site-marks.csv' => $site['marks'], 'site-pegs.csv' => $site['pegs']] as $name => $contents) {
                file_put_contents($folder.'/'.$name, $contents);
            }

            return self::SUCCESS;
        }
        if (null !== $this->entities->getRepository(Project::class)->findOneBy(['name' => self::PROJECT])) {
            $output->writeln('The demo project is already there.');
            $this->sayAccount($output);

            return self::SUCCESS;
        }
        $owner = $this->user('demo', 'Demo Surveyor');
        $reviewer = $this->user('review', 'Demo Reviewer');
        $project = new Project(self::PROJECT, TruthModel::SYSTEM, 'ellipsoidal', $this->clock->now());
        $this->entities->persist($project);
        $this->entities->persist(new Membership($owner, $project, Role::Owner));
        $this->entities->persist(new Membership($reviewer, $project, Role::Reviewer));
        $this->entities->flush();

        foreach ($files + ['site-pegs.csv' => $site['pegs']] as $name => $contents) {
            $kind = Mapping::guess(DelimitedTable::parse($contents))->kind->value;
            $file = new SurveyFile($project, $name, $this->store->put($contents), \strlen($contents), $kind, $owner, $this->clock->now());
            $this->entities->persist($file);
            $this->entities->flush();
            if ('site-pegs.csv' === $name) {
                $this->connection->update('survey_file', ['meaning' => json_encode((new Meaning('local'))->toArray(), \JSON_THROW_ON_ERROR)], ['id' => $file->id()]);
                $this->entities->refresh($file);
            }
            $this->ledger->carryOut($project, $owner->name(), new AcceptFile($this->connection, $this->store, $this->placer, $file, false));
        }
        // Two of the four planted blunders are found and set aside already; two are left to find.
        $this->adjuster->run($project, $owner->name());
        foreach ([['vector', 'KT01', 'KT08', 'antenna height of session S3 was read wrong'], ['zenith', 'KT10', 'KT06', 'target height does not agree with round 2']] as [$kind, $from, $to, $reason]) {
            $id = (int) $this->connection->fetchOne('SELECT MIN(id) FROM observation WHERE project_id = ? AND kind = ? AND from_name = ? AND to_name = ?', [$project->id(), $kind, $from, $to]);
            $this->ledger->carryOut($project, $owner->name(), new SetUse($this->connection, [['id' => $id, 'component' => null]], true, $reason));
            $this->adjuster->run($project, $owner->name());
        }
        $this->ledger->carryOut($project, $owner->name(), new AcceptCoordinates($this->connection, $this->results, $this->store));
        $this->ledger->carryOut($project, $owner->name(), $this->siteGrid($project, $site['marks']));
        $surface = $this->pit($project);
        $this->ledger->carryOut($project, $owner->name(), $surface);
        $this->surfaces->make($project, $owner->name(), $surface->id);
        $this->ledger->carryOut($project, $owner->name(), new ComputeVolume($this->results, $this->store, $surface->id, 225.0));
        $this->exporter->export($project, $owner->name(), 'csv', []);
        $this->exporter->export($project, $owner->name(), 'dxf', [$surface->id]);
        $this->exporter->export($project, $owner->name(), 'pdf', []);
        $output->writeln('Demo project loaded.');
        $this->sayAccount($output);

        return self::SUCCESS;
    }

    private function sayAccount(OutputInterface $output): void
    {
        $output->writeln(\sprintf('Sign in as demo (or review, who may only read) with password: %s', self::PASSWORD));
    }

    /** The localization of the site grid over the marks known on both sides, the wrong one among them. */
    private function siteGrid(Project $project, string $marks): KeepRow
    {
        $pairs = [];
        foreach (\array_slice(explode("\n", trim($marks)), 2) as $line) {
            [$name, $e, $n, $h] = explode(',', $line);
            $p = $this->connection->fetchAssociative('SELECT e, n, h FROM point WHERE project_id = ? AND name = ?', [$project->id(), $name]) ?: throw new \LogicException("$name has no coordinates.");
            $pairs[] = new Pair($name, (float) $e, (float) $n, (float) $h, (float) $p['e'], (float) $p['n'], (float) $p['h']);
        }
        $choices = new Choices();
        $fit = Fitter::fit($pairs, $choices);
        $file = LocalizationJson::toArray('Site grid', TruthModel::SYSTEM, 'ellipsoidal', $fit->localization, $choices, $pairs, $fit);

        return new KeepRow($this->connection, 'localization', 'localization', \sprintf('Fitted the localization Site grid: %d pairs', \count($pairs)), ['name' => 'Site grid', 'file' => json_encode($file, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE | \JSON_PRETTY_PRINT)]);
    }

    private function pit(Project $project): DefineSurface
    {
        $lines = [];
        foreach (['CREST', 'TOE'] as $code) {
            $names = array_map(strval(...), $this->connection->fetchFirstColumn('SELECT name FROM point WHERE project_id = ? AND code = ? ORDER BY id', [$project->id(), $code]));
            $lines[] = ['role' => 'breakline', 'name' => strtolower($code), 'points' => [...$names, $names[0]], 'vertices' => []];
        }
        $lines[] = ['role' => 'boundary', 'name' => 'works limit', 'points' => [], 'vertices' => [[493536.0, 6028006.0], [493704.0, 6028006.0], [493704.0, 6028112.0], [493536.0, 6028112.0]]];

        return new DefineSurface($this->connection, 'Borrow pit', new SurfaceDefinition(['surveyed'], [], [], $lines, null, 0.5));
    }

    private function user(string $username, string $name): User
    {
        $user = $this->entities->getRepository(User::class)->findOneBy(['username' => $username]) ?? new User($username, $name);
        $user->setPasswordHash($this->hasher->hashPassword($user, self::PASSWORD));
        $this->entities->persist($user);
        $this->entities->flush();

        return $user;
    }
}
