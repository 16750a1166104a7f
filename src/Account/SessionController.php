<?php

declare(strict_types=1);

namespace App\Account;

use App\Account\View\SessionView;
use App\Account\View\UserView;
use App\Api\Guard;
use App\Api\Problem;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Csrf\CsrfTokenManagerInterface;
use Symfony\Component\Security\Http\Attribute\CurrentUser;

final class SessionController
{
    #[Route('/api/session', methods: 'GET')]
    public function session(#[CurrentUser] ?User $user, CsrfTokenManagerInterface $tokens): JsonResponse
    {
        return new JsonResponse(new SessionView(
            null === $user ? null : new UserView($user->username(), $user->name()),
            $tokens->getToken(Guard::TOKEN)->getValue(),
        ));
    }

    #[Route('/api/login', name: 'api_login', methods: 'POST')]
    public function login(): Response
    {
        // The firewall answers what it understands.
        return Problem::response(
            400,
            'This request is not understood.',
            'Send name and password as JSON: {"username": "...", "password": "..."}.',
        );
    }

    #[Route('/api/logout', name: 'api_logout', methods: 'POST')]
    public function logout(): Response
    {
        throw new \LogicException('The firewall answers here.');
    }
}
