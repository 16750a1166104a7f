<?php

declare(strict_types=1);

namespace App\Account;

use App\Api\Problem;
use Psr\Cache\CacheItemPoolInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\PasswordHasher\Hasher\PasswordHasherFactoryInterface;
use Symfony\Component\Security\Core\Authentication\Token\TokenInterface;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Core\Exception\UserNotFoundException;
use Symfony\Component\Security\Http\Authentication\AuthenticationFailureHandlerInterface;
use Symfony\Component\Security\Http\Authentication\AuthenticationSuccessHandlerInterface;
use Symfony\Component\Security\Http\EntryPoint\AuthenticationEntryPointInterface as EntryPoint;

/** Answers of signing in, as JSON. The same words, after the same time, for an unknown name and a wrong password. */
final class SignInAnswer implements AuthenticationSuccessHandlerInterface, AuthenticationFailureHandlerInterface, EntryPoint
{
    public function __construct(
        private readonly PasswordHasherFactoryInterface $hashers,
        private readonly CacheItemPoolInterface $cache,
        private readonly Sessions $sessions,
    ) {
    }

    public function onAuthenticationSuccess(Request $request, TokenInterface $token): Response
    {
        $user = $token->getUser();
        \assert($user instanceof User);
        $this->sessions->begin($user, $request);

        return new JsonResponse(['ok' => true]);
    }

    public function onAuthenticationFailure(Request $request, AuthenticationException $exception): Response
    {
        if ($exception instanceof UserNotFoundException || $exception->getPrevious() instanceof UserNotFoundException) {
            $this->hashers->getPasswordHasher(User::class)->verify($this->hashOfNoOne(), $request->getContent());
        }

        return Problem::response(401, 'Name or password is not right.', 'Check both and try again.');
    }

    public function start(Request $request, ?AuthenticationException $authException = null): Response
    {
        return Problem::response(401, 'Please sign in.', 'Your session has ended or has not begun.');
    }

    /** A hash as costly as any, of a password no one has. */
    private function hashOfNoOne(): string
    {
        $item = $this->cache->getItem('sign-in.no-one');
        if (!$item->isHit()) {
            $item->set($this->hashers->getPasswordHasher(User::class)->hash(bin2hex(random_bytes(24))));
            $this->cache->save($item);
        }

        return (string) $item->get();
    }
}
