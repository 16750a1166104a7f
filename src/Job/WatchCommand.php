<?php

declare(strict_types=1);

namespace App\Job;

use Doctrine\DBAL\Exception as DatabaseFault;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('mensura:jobs:watch', 'Looks after the jobs of this machine\'s workers, as long as what started it')]
final class WatchCommand extends Command
{
    private const SECONDS = 5;

    public function __construct(private readonly Watch $watch)
    {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $parent = posix_getppid();
        while (posix_getppid() === $parent) {
            try {
                $this->watch->look();
            } catch (DatabaseFault) {
                // Busy: the lease outlasts several looks.
            }
            sleep(self::SECONDS);
        }

        return self::SUCCESS;
    }
}
