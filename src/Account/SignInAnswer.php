<?php

declare(strict_types=1);

namespace App\Account;

use App\Api\Problem;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Security\Core\Authentication\Token\TokenInterface;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Http\Authentication\AuthenticationFailureHandlerInterface;
use Symfony\Component\Security\Http\Authentication\AuthenticationSuccessHandlerInterface;
use Symfony\Component\Security\Http\EntryPoint\AuthenticationEntryPointInterface;

/** Answers of signing in, as JSON. The same words for an unknown name and a wrong password. */
final class SignInAnswer implements AuthenticationSuccessHandlerInterface, AuthenticationFailureHandlerInterface, AuthenticationEntryPointInterface
{
    public function onAuthenticationSuccess(Request $request, TokenInterface $token): Response
    {
        return new JsonResponse(['ok' => true]);
    }

    public function onAuthenticationFailure(Request $request, AuthenticationException $exception): Response
    {
        return Problem::response(401, 'Name or password is not right.', 'Check both and try again.');
    }

    public function start(Request $request, ?AuthenticationException $authException = null): Response
    {
        return Problem::response(401, 'Please sign in.', 'Your session has ended or has not begun.');
    }
}
