<?php

declare(strict_types=1);

namespace App\Transfer;

use App\Account\UserRepository;
use Mensura\Fault\UnusableInput;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

/** For archives that are larger than what the page takes. */
#[AsCommand('mensura:bring', 'Makes a project of an archive, owned by the account named')]
final class BringCommand extends Command
{
    public function __construct(private readonly Begin $begin, private readonly UserRepository $users)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('archive', InputArgument::REQUIRED, 'the zip, as it was written');
        $this->addArgument('account', InputArgument::REQUIRED, 'name the owner signs in with');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $path = (string) $input->getArgument('archive');
        $user = $this->users->named((string) $input->getArgument('account'));
        if (null === $user || !is_file($path)) {
            $output->writeln(null === $user ? 'There is no such account.' : 'There is no such file.');

            return self::INVALID;
        }
        try {
            $brought = $this->begin->of($path, $user);
        } catch (UnusableInput $e) {
            $output->writeln($e->getMessage());

            return self::INVALID;
        }
        $output->writeln(\sprintf('%s is project %d; the worker fills it.', $brought->name, $brought->project));

        return self::SUCCESS;
    }
}
