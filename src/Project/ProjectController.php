<?php

declare(strict_types=1);

namespace App\Project;

use App\Account\User;
use App\Project\Request\CreateRequest;
use App\Project\View\ProjectCard;
use Mensura\Fault\UnusableInput;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;

#[Route('/api/projects')]
final class ProjectController
{
    public function __construct(private readonly ProjectRepository $projects, private readonly MembershipRepository $memberships)
    {
    }

    #[Route('', methods: 'GET')]
    public function list(#[CurrentUser] User $member): JsonResponse
    {
        $cards = array_map(
            static fn (Membership $m): ProjectCard => self::card($m->project(), $m->role()),
            $this->memberships->held($member),
        );

        return new JsonResponse($cards);
    }

    #[Route('', methods: 'POST')]
    public function create(
        #[MapRequestPayload] CreateRequest $request,
        #[CurrentUser] User $member,
        MeaningOfCoordinates $meaning,
        ClockInterface $clock,
    ): JsonResponse {
        if (Project::PLANE === $request->reference && 'local' !== $request->heights) {
            throw new UnusableInput('/heights', 'a plane local system has local heights');
        }
        if (Project::PLANE !== $request->reference && 'ellipsoidal' !== $request->heights) {
            $reason = 'a new project in a projected system begins with ellipsoidal heights; choose a geoid for it on the Reference stage';
            throw new UnusableInput('/heights', $reason);
        }
        $reference = Project::PLANE === $request->reference ? Project::PLANE : $meaning->beginsIn($request->reference);
        $project = new Project(trim($request->name), $reference, $request->heights, $clock->now());
        $this->projects->found($project, $member);

        return new JsonResponse(self::card($project, Role::Owner), 201);
    }

    private static function card(Project $project, Role $role): ProjectCard
    {
        return new ProjectCard($project->id(), $project->name(), $role->value, $project->reference(), $project->heights());
    }
}
