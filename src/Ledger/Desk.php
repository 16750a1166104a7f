<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Account\User;
use App\Api\RequestKey;
use App\Job\Jobs;
use App\Project\Project;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\RequestStack;

/** Carries operations out, and starts jobs, for the member who is signed in. */
final class Desk
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly Jobs $jobs,
        private readonly Security $security,
        private readonly RequestStack $requests,
        private readonly RequestKey $key,
    ) {
    }

    /** @return array{seq: int} the entry, 0 when nothing changed */
    public function carryOut(Project $project, Operation $operation): array
    {
        return ['seq' => $this->ledger->carryOut($project, $this->member()->name(), $operation, null, $this->key->value())];
    }

    /**
     * @param array<string, mixed> $payload
     *
     * @return array{job: string}
     */
    public function start(Project $project, string $kind, string $title, array $payload = []): array
    {
        return ['job' => $this->jobs->start($project, $this->member(), $kind, $title, $payload, $this->key->value())];
    }

    /** @return array{seq: int} */
    public function undo(Project $project, int $seq): array
    {
        return ['seq' => $this->ledger->undo($project, $this->member()->name(), $seq, $this->key->value())];
    }

    /** @return array{seq: int} */
    public function backTo(Project $project, int $seq): array
    {
        return ['seq' => $this->ledger->backTo($project, $this->member()->name(), $seq, $this->key->value())];
    }

    /** The version the member saw of what they edit (header If-Match); null when they do not say. */
    public function seen(): ?string
    {
        $header = $this->requests->getMainRequest()?->headers->get('If-Match');

        return null === $header || '*' === $header ? null : trim($header, ' "');
    }

    public function member(): User
    {
        $user = $this->security->getUser();
        \assert($user instanceof User);

        return $user;
    }
}
