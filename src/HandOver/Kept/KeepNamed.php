<?php

declare(strict_types=1);

namespace App\HandOver\Kept;

use App\Ledger\Desk;
use App\Ledger\DoneBefore;
use App\Ledger\LedgerEntryRepository;
use App\Project\Project;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/** Keeps named things for the member who is signed in; sent again because the answer was lost, one stays one. */
final class KeepNamed
{
    public function __construct(private readonly LedgerEntryRepository $entries, private readonly Desk $desk)
    {
    }

    /**
     * @param NamedRepository<covariant Named> $things
     *
     * @return int database id
     */
    public function keep(NamedRepository $things, Project $project, string $name, Definition $definition, ?int $existing): int
    {
        if (null !== $existing) {
            $this->found($things, $project, $existing);
        }
        $operation = new Define($things, $this->entries, trim($name), $definition, $existing, $this->desk->seen());
        try {
            $this->desk->carryOut($project, $operation);

            return $operation->id();
        } catch (DoneBefore $e) {
            return $existing ?? $things->named($project, trim($name))?->id() ?? throw $e;
        }
    }

    /**
     * @param NamedRepository<covariant Named> $things
     *
     * @return array{seq: int}
     */
    public function remove(NamedRepository $things, Project $project, int $id): array
    {
        $this->found($things, $project, $id);

        return $this->desk->carryOut($project, new Remove($things, $id));
    }

    /** @param NamedRepository<covariant Named> $things */
    private function found(NamedRepository $things, Project $project, int $id): void
    {
        if (null === $things->in($project, $id)) {
            throw new NotFoundHttpException(\sprintf('There is no such %s.', $things->kind()::noun()));
        }
    }
}
