<?php

declare(strict_types=1);

namespace Demo;

use App\Account\User;
use App\Account\UserRepository;
use App\Export\Exporter;
use App\Intake\IntakeOperations;
use App\Intake\Meaning;
use App\Ledger\Ledger;
use App\Network\Adjuster;
use App\Network\Chosen;
use App\Network\NetworkOperations;
use App\Project\Members;
use App\Project\Project;
use App\Project\ProjectRepository;
use App\Project\Role;
use App\Reference\Keep;
use App\Reference\ReferenceOperations;
use App\Survey\ObservationRepository;
use App\Survey\PointRepository;
use App\Terrain\DefinedLine;
use App\Terrain\DefineSurface;
use App\Terrain\SurfaceDefinition;
use App\Terrain\SurfaceMaker;
use App\Terrain\TerrainOperations;
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
        private readonly ProjectRepository $projects,
        private readonly UserRepository $users,
        private readonly Members $members,
        private readonly PointRepository $points,
        private readonly ObservationRepository $observations,
        private readonly UserPasswordHasherInterface $hasher,
        private readonly IntakeOperations $intake,
        private readonly NetworkOperations $network,
        private readonly ReferenceOperations $reference,
        private readonly TerrainOperations $terrain,
        private readonly Ledger $ledger,
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
        if (null !== $this->projects->findOneBy(['name' => self::PROJECT])) {
            $output->writeln('The demo project is already there.');
            $this->sayAccount($output);

            return self::SUCCESS;
        }
        $owner = $this->user('demo', 'Demo Surveyor');
        $reviewer = $this->user('review', 'Demo Reviewer');
        $project = new Project(self::PROJECT, TruthModel::SYSTEM, 'ellipsoidal', $this->clock->now());
        $this->projects->found($project, $owner);
        $this->members->change($project, $reviewer->username(), Role::Reviewer);
        $this->bring($project, $owner, $files + ['site-pegs.csv' => $site['pegs']]);
        $this->work($project, $owner->name(), $site['marks']);
        $output->writeln('Demo project loaded.');
        $this->sayAccount($output);

        return self::SUCCESS;
    }

    /** @param array<string, string> $files */
    private function bring(Project $project, User $owner, array $files): void
    {
        foreach ($files as $name => $contents) {
            $received = $this->intake->receive($name, $contents, $owner);
            $this->ledger->carryOut($project, $owner->name(), $received);
            if ('site-pegs.csv' === $name) {
                $this->ledger->carryOut($project, $owner->name(), $this->intake->mean($received->id(), new Meaning('local')));
            }
            $this->ledger->carryOut($project, $owner->name(), $this->intake->accept($received->id(), false));
        }
    }

    private function work(Project $project, string $author, string $marks): void
    {
        // Two of the four planted blunders are found and set aside already; two are left to find.
        $this->adjuster->run($project, $author);
        foreach ([
            ['vector', 'KT01', 'KT08', 'antenna height of session S3 was read wrong'],
            ['zenith', 'KT10', 'KT06', 'target height does not agree with round 2'],
        ] as [$kind, $from, $to, $reason]) {
            $blunder = $this->observations->between($project, $kind, $from, $to) ?? throw new \LogicException('The blunder is gone.');
            $this->ledger->carryOut($project, $author, $this->network->setAside([new Chosen($blunder->id(), null)], $reason));
            $this->adjuster->run($project, $author);
        }
        $this->ledger->carryOut($project, $author, $this->network->accept());
        $this->ledger->carryOut($project, $author, $this->siteGrid($project, $marks));
        $surface = $this->pit($project);
        $this->ledger->carryOut($project, $author, $surface);
        $this->surfaces->make($project, $author, $surface->id());
        $this->ledger->carryOut($project, $author, $this->terrain->volume($surface->id(), 225.0));
        $this->exporter->export($project, $author, 'csv', []);
        $this->exporter->export($project, $author, 'dxf', [$surface->id()]);
        $this->exporter->export($project, $author, 'pdf', []);
    }

    private function sayAccount(OutputInterface $output): void
    {
        $output->writeln(\sprintf('Sign in as demo (or review, who may only read) with password: %s', self::PASSWORD));
    }

    /** The localization of the site grid over the marks known on both sides, the wrong one among them. */
    private function siteGrid(Project $project, string $marks): Keep
    {
        $pairs = [];
        foreach (\array_slice(explode("\n", trim($marks)), 2) as $line) {
            [$name, $e, $n, $h] = explode(',', $line);
            $p = $this->points->named($project, $name) ?? throw new \LogicException("$name has no coordinates.");
            $pairs[] = new Pair($name, (float) $e, (float) $n, (float) $h, (float) $p->e, (float) $p->n, (float) $p->h);
        }
        $choices = new Choices();
        $fit = Fitter::fit($pairs, $choices);
        $file = LocalizationJson::toArray('Site grid', TruthModel::SYSTEM, 'ellipsoidal', $fit->localization, $choices, $pairs, $fit);
        $text = json_encode($file, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE | \JSON_PRETTY_PRINT);

        return $this->reference->keepLocalization(
            'Site grid',
            $text,
            \sprintf('Fitted the localization Site grid: %d pairs', \count($pairs)),
        );
    }

    private function pit(Project $project): DefineSurface
    {
        $lines = [];
        foreach (['CREST', 'TOE'] as $code) {
            $names = $this->points->namesCoded($project, $code);
            $lines[] = new DefinedLine('breakline', strtolower($code), [...$names, $names[0]], []);
        }
        $limit = [[493536.0, 6028006.0], [493704.0, 6028006.0], [493704.0, 6028112.0], [493536.0, 6028112.0]];
        $lines[] = new DefinedLine('boundary', 'works limit', [], $limit);

        return $this->terrain->define('Borrow pit', new SurfaceDefinition(['surveyed'], [], [], $lines, null, 0.5));
    }

    private function user(string $username, string $name): User
    {
        $user = $this->users->named($username) ?? new User($username, $name);
        $user->setPasswordHash($this->hasher->hashPassword($user, self::PASSWORD));
        $this->users->save($user);

        return $user;
    }
}
