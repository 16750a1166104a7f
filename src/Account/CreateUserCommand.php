<?php

declare(strict_types=1);

namespace App\Account;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;

#[AsCommand('mensura:user', 'Makes an account, or gives it a new password')]
final class CreateUserCommand extends Command
{
    private const SHORTEST = 10;

    public function __construct(private readonly UserRepository $users, private readonly UserPasswordHasherInterface $hasher)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('username', InputArgument::REQUIRED)->addArgument('name', InputArgument::REQUIRED)->addArgument('password', InputArgument::REQUIRED);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$username, $name, $password] = array_map(static fn (string $k): string => (string) $input->getArgument($k), ['username', 'name', 'password']);
        if (mb_strlen($password) < self::SHORTEST) {
            $output->writeln(\sprintf('A password needs at least %d characters.', self::SHORTEST));

            return self::INVALID;
        }
        $user = $this->users->named($username) ?? new User($username, $name);
        $user->setPasswordHash($this->hasher->hashPassword($user, $password));
        $this->users->save($user);

        return self::SUCCESS;
    }
}
