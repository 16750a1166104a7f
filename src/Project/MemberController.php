<?php

declare(strict_types=1);

namespace App\Project;

use App\Api\Id;
use App\Project\Request\MemberRequest;
use App\Project\View\MemberView;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

/** Who may do what in a project. Everyone in it sees this, owners change it. */
#[Route(Id::PROJECT.'/members')]
final class MemberController
{
    public function __construct(private readonly MembershipRepository $memberships, private readonly Members $members)
    {
    }

    #[Route('', methods: 'GET')]
    public function list(#[Reads] Project $project): JsonResponse
    {
        return new JsonResponse(array_map(
            static fn (Membership $m): MemberView => new MemberView($m->user()->username(), $m->user()->name(), $m->role()->value),
            $this->memberships->in($project),
        ));
    }

    #[Route('', methods: 'PUT')]
    public function change(#[Manages] Project $project, #[MapRequestPayload] MemberRequest $request): JsonResponse
    {
        $this->members->change($project, $request->username, Role::tryFrom($request->role));

        return $this->list($project);
    }
}
