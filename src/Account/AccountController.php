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
}
