<?php

declare(strict_types=1);

namespace App\Account;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Console\Style\SymfonyStyle;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;

#[AsCommand('mensura:user', 'Makes an account, or gives it a new password')]
final class CreateUserCommand extends Command
{
    public function __construct(private readonly UserRepository $users, private readonly UserPasswordHasherInterface $hasher)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('username', InputArgument::REQUIRED, 'What one signs in with');
        $this->addArgument('name', InputArgument::REQUIRED, 'As the ledger names them');
        $this->setHelp('The password is asked for without echo; a script gives it on standard input, one line.');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$username, $name] = array_map(static fn (string $k): string => (string) $input->getArgument($k), ['username', 'name']);
        $style = new SymfonyStyle($input, $output);
        $password = rtrim(
            (string) $style->askHidden(\sprintf('Password of %s', $username), static fn (?string $p): string => (string) $p),
            "\r\n",
        );
        if (mb_strlen($password) < User::SHORTEST_PASSWORD) {
            $output->writeln(\sprintf('A password needs at least %d characters.', User::SHORTEST_PASSWORD));

            return self::INVALID;
        }
        $user = $this->users->named($username) ?? new User($username, $name);
        $user->setPasswordHash($this->hasher->hashPassword($user, $password));
        $this->users->save($user);

        return self::SUCCESS;
    }
}
