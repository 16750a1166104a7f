<?php

declare(strict_types=1);

namespace App\Job;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('mensura:jobs:take-up', 'Queues jobs again whose worker died')]
final class TakeUpCommand extends Command
{
    public function __construct(private readonly Jobs $jobs)
    {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $count = $this->jobs->takeUpAgain();
        if ($count > 0) {
            $output->writeln(\sprintf('%d job(s) taken up again', $count));
        }

        return self::SUCCESS;
    }
}
