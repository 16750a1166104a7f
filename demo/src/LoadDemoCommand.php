<?php

declare(strict_types=1);

namespace Demo;

use App\Account\User;
use App\Account\UserRepository;
use App\Intake\IntakeOperations;
use App\Intake\Meaning;
use App\Job\Jobs;
use App\Ledger\Ledger;
use App\Project\Members;
use App\Project\Project;
use App\Project\ProjectRepository;
use App\Project\Role;
use App\Survey\SurveyFileRepository;
use Demo\Flight\FlightDemo;
use Demo\Flight\FlightDemoHandler;
use Demo\Gnss\KerbWalk;
use Demo\Gnss\RoverWalk;
use Demo\Gnss\Sessions;
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

    /** Images of the flight that make a block of two strips. */
    private const FEW = [0, 1, 2, 7, 8, 9];
    /** Images of the rover that are enough to pick in. */
    private const FEW_OF_ROVER = [2, 3, 4, 5];

    public function __construct(
        private readonly ProjectRepository $projects,
        private readonly UserRepository $users,
        private readonly Members $members,
        private readonly UserPasswordHasherInterface $hasher,
        private readonly IntakeOperations $intake,
        private readonly Ledger $ledger,
        private readonly SurveyFileRepository $files,
        private readonly DemoStory $story,
        private readonly ClockInterface $clock,
        private readonly FlightDemo $flight,
        private readonly Jobs $jobs,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $words = 'A project with a photo flight too: "worker" has it prepared by the worker, "files" brings a few images in';
        $this->addOption('flight', null, InputOption::VALUE_REQUIRED, $words, 'none');
        $this->addOption('files-only', null, InputOption::VALUE_REQUIRED, 'Write the field files into this folder and stop');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $files = (new Generator(new TruthModel()))->files();
        $site = (new Generator(new TruthModel()))->siteFiles();
        $files['traverse-access-road.xml'] = (new Generator(new TruthModel()))->traverse();
        $files['rover-shots-drainage.csv'] = (new Generator(new TruthModel()))->roverShots();
        $slab = [Slab::DESIGN => (new Slab())->design(), Slab::SCAN => (new Slab())->scan()];
        $heap = [HaulRoad::FILE => (new HaulRoad())->design()];
        $heap += [Heap::MAY => (new Heap())->survey(false), Heap::JUNE => (new Heap())->survey(true)];
        $heap += [SiteLines::FILE => (new SiteLines())->design()];
        $heap += [Heap::SCAN => (new Heap())->scan(), Heap::CHECKS => (new Heap())->checks()];
        $heap += [Yard::SCAN => (new Yard())->scan()] + (new Drives())->files();
        $sessions = (new Sessions(new TruthModel()))->files() + (new RoverWalk(new TruthModel()))->files()
            + (new KerbWalk(new TruthModel()))->files() + ['kt02-receiver.log' => (new Sessions(new TruthModel()))->log()];
        if (\is_string($folder = $input->getOption('files-only'))) {
            $more = ['site-marks.csv' => $site['marks'], 'site-pegs.csv' => $site['pegs']];
            foreach ($files + $sessions + $slab + $heap + $more as $name => $contents) {
                file_put_contents($folder.'/'.$name, $contents);
            }

            return self::SUCCESS;
        }
        if (null !== $this->projects->findOneBy(['name' => self::PROJECT])) {
            $output->writeln('The demo project is already there.');
            $this->flight((string) $input->getOption('flight'));
            $this->sayAccount($output);

            return self::SUCCESS;
        }
        $owner = $this->user('demo', 'Demo Surveyor');
        $reviewer = $this->user('review', 'Demo Reviewer');
        $project = new Project(self::PROJECT, TruthModel::SYSTEM, 'ellipsoidal', $this->clock->now());
        $this->projects->found($project, $owner);
        $this->members->change($project, $reviewer->username(), Role::Reviewer);
        $this->bring($project, $owner, $files + ['site-pegs.csv' => $site['pegs']]);
        $this->bring($project, $owner, $sessions);
        $this->bring($project, $owner, $slab + $heap);
        $this->story->tell($project, $owner->name(), $site['marks']);
        $output->writeln('Demo project loaded.');
        $this->flight((string) $input->getOption('flight'));
        $this->sayAccount($output);

        return self::SUCCESS;
    }

    /** Heavier than the rest: the office opens while the worker prepares it. */
    private function flight(string $how): void
    {
        if ('none' === $how) {
            return;
        }
        $owner = $this->user('demo', 'Demo Surveyor');
        $project = $this->flight->found($owner, $this->user('review', 'Demo Reviewer'));
        if (null === $project) {
            return;
        }
        if ('files' === $how) {
            $this->flight->bring($project, $owner, self::FEW);
            $this->flight->bringGroups($project, $owner, ['barn, front' => self::FEW_OF_ROVER]);
        } else {
            $this->jobs->start($project, $owner, FlightDemoHandler::kind(), 'Prepare the flight', ['owner' => $owner->username()]);
        }
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
            if (\in_array($name, [Heap::CHECKS, Drives::CHECKS], true)) {
                $file = $this->files->in($project, $received->id()) ?? throw new \LogicException('The file is gone.');
                $this->ledger->carryOut($project, $owner->name(), $this->intake->map($file, ['kind' => 'control']));
                $this->ledger->carryOut($project, $owner->name(), $this->intake->mean($received->id(), new Meaning(control: 'check')));
            }
            $this->ledger->carryOut($project, $owner->name(), $this->intake->accept($received->id(), false));
        }
    }

    private function sayAccount(OutputInterface $output): void
    {
        $output->writeln(\sprintf('Sign in as demo (or review, who may only read) with password: %s', self::PASSWORD));
    }

    private function user(string $username, string $name): User
    {
        $user = $this->users->named($username) ?? new User($username, $name);
        $user->setPasswordHash($this->hasher->hashPassword($user, self::PASSWORD));
        $this->users->save($user);

        return $user;
    }
}
