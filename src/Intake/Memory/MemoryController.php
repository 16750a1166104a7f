<?php

declare(strict_types=1);

namespace App\Intake\Memory;

use App\Account\User;
use App\Api\Id;
use App\Intake\Request\LabelRequest;
use App\Project\Changes;
use App\Project\Project;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;

/** Renames and forgets mappings that are remembered. */
#[Route(Id::PROJECT.'/intake/memories/{memory'.Id::NUMBER.'}')]
final class MemoryController
{
    public function __construct(private readonly RememberedMappingRepository $memories)
    {
    }

    #[Route('', methods: 'PUT')]
    public function rename(
        #[Changes] Project $project, int $memory, #[CurrentUser] User $user, #[MapRequestPayload] LabelRequest $request,
    ): JsonResponse {
        $this->memories->rename($this->found($project, $user, $memory), trim($request->label));

        return new JsonResponse(null, 204);
    }

    #[Route('', methods: 'DELETE')]
    public function forget(#[Changes] Project $project, int $memory, #[CurrentUser] User $user): JsonResponse
    {
        $this->memories->forget($this->found($project, $user, $memory));

        return new JsonResponse(null, 204);
    }

    private function found(Project $project, User $user, int $id): RememberedMapping
    {
        return $this->memories->within($project, $user, $id)
            ?? throw new NotFoundHttpException('No such mapping is remembered here; it was forgotten meanwhile.');
    }
}
