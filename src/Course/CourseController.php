<?php

declare(strict_types=1);

namespace App\Course;

use App\Account\User;
use App\Api\Id;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Project\Request\UnitsRequest;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;

/** What stands around the stages: the state of the project, and finding things in it by name. */
#[Route(Id::PROJECT)]
final class CourseController
{
    private const MOST_HITS = 40;

    #[Route('', methods: 'GET')]
    public function overview(#[Reads] Project $project, #[CurrentUser] User $member, OverviewMaker $overview): JsonResponse
    {
        return new JsonResponse($overview->of($project, $member));
    }

    #[Route('/search', methods: 'GET')]
    public function search(#[Reads] Project $project, Request $request, Course $course): JsonResponse
    {
        return new JsonResponse(\array_slice($course->find($project, trim((string) $request->query->get('q'))), 0, self::MOST_HITS));
    }

    #[Route('/units', methods: 'PUT')]
    public function units(#[Changes] Project $project, #[MapRequestPayload] UnitsRequest $request, Desk $desk): JsonResponse
    {
        return new JsonResponse($desk->carryOut($project, new ChangeUnits($request)));
    }
}
