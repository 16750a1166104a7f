<?php

declare(strict_types=1);

namespace App\Account;

use App\Account\Request\PasswordRequest;
use App\Account\View\SignedInView;
use App\Api\Id;
use Mensura\Fault\UnusableInput;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;

/** What people do with their own account: another password, and where they are signed in. */
#[Route('/api/account')]
final class AccountController
{
    private const LONGEST_PREFERENCE = 4000;

    public function __construct(private readonly UserSessionRepository $rows, private readonly Sessions $sessions)
    {
    }

    #[Route('/sessions', methods: 'GET')]
    public function sessions(#[CurrentUser] User $user, Request $request): JsonResponse
    {
        $utc = static fn (\DateTimeImmutable $at): string => $at->format('Y-m-d\TH:i:s\Z');

        return new JsonResponse(array_map(fn (UserSession $s): SignedInView => new SignedInView(
            $s->id(), $s->address, $s->agent, $utc($s->begunAt), $utc($s->usedAt), $this->sessions->isThis($s, $request->getSession()),
        ), $this->rows->of($user)));
    }

    #[Route('/sessions/{session'.Id::NUMBER.'}', methods: 'DELETE')]
    public function end(#[CurrentUser] User $user, int $session, Request $request): JsonResponse
    {
        $this->rows->end($user, $session);

        return $this->sessions($user, $request);
    }

    /** The other sessions end: whoever knew the old password is out. */
    #[Route('/password', methods: 'PUT')]
    public function password(
        #[CurrentUser] User $user,
        #[MapRequestPayload] PasswordRequest $request,
        UserPasswordHasherInterface $hasher,
        UserRepository $users,
        Request $http,
    ): JsonResponse {
        if (!$hasher->isPasswordValid($user, $request->current)) {
            throw new UnusableInput('/current', 'is not your password');
        }
        $user->setPasswordHash($hasher->hashPassword($user, $request->new));
        $users->save($user);
        $this->sessions->endOthers($user, $http->getSession());

        return $this->sessions($user, $http);
    }

    /** How this person likes tables and pages shown, by name. */
    #[Route('/preferences', methods: 'GET')]
    public function preferences(#[CurrentUser] User $user, PreferenceRepository $preferences): JsonResponse
    {
        $members = [];
        foreach ($preferences->of($user) as $name => $json) {
            $members[] = json_encode($name, \JSON_THROW_ON_ERROR).':'.$json;
        }

        return JsonResponse::fromJsonString('{'.implode(',', $members).'}');
    }

    #[Route('/preferences/{name}', requirements: ['name' => '[a-z0-9][a-z0-9.-]{0,59}'], methods: 'PUT')]
    public function prefer(
        #[CurrentUser] User $user, string $name, Request $request, PreferenceRepository $preferences,
    ): JsonResponse {
        $json = $request->getContent();
        if (\strlen($json) > self::LONGEST_PREFERENCE || !json_validate($json)) {
            throw new UnusableInput('', \sprintf('is not JSON of at most %d bytes', self::LONGEST_PREFERENCE));
        }
        if (!$preferences->keep($user, $name, $json)) {
            throw new UnusableInput('', 'cannot be kept: too many preferences are kept already');
        }

        return new JsonResponse(null, 204);
    }
}
