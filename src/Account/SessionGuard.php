<?php

declare(strict_types=1);

namespace App\Account;

use App\Api\Problem;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\Security\Core\Authentication\Token\Storage\TokenStorageInterface;
use Symfony\Component\Security\Http\Event\LogoutEvent;

/** Sessions that were ended elsewhere, or not used for long, are over; asking for news does not keep one alive. */
final class SessionGuard
{
    /** The page says so of what it asks by itself. */
    public const NEWS = 'X-Mensura-News';

    public function __construct(
        private readonly Sessions $sessions,
        private readonly Security $security,
        private readonly TokenStorageInterface $tokens,
        #[Autowire('%kernel.environment%')] private readonly string $environment,
    ) {
    }

    /** After the firewall has found who asks. */
    #[AsEventListener(priority: 7)]
    public function request(RequestEvent $event): void
    {
        $request = $event->getRequest();
        if (!$event->isMainRequest() || !str_starts_with($request->getPathInfo(), '/api/') || null === $this->security->getUser()) {
            return;
        }
        $session = $request->getSession();
        // Tests sign in without the form.
        $isMade = 'test' === $this->environment && !$session->has('mensura.session');
        if ($isMade || $this->sessions->stands($session, !$request->headers->has(self::NEWS))) {
            if ($request->isMethodSafe()) {
                $session->save(); // nothing else the page asks meanwhile has to wait for the session's file
            }

            return;
        }
        $this->tokens->setToken(null);
        $session->invalidate();
        if ('/api/session' !== $request->getPathInfo()) {
            $event->setResponse(Problem::response(
                401,
                'Please sign in.',
                'Your session has ended: it was not used for long, or it was signed out elsewhere.',
            ));
        }
    }

    /** Before the session itself is let go. */
    #[AsEventListener(priority: 100)]
    public function logout(LogoutEvent $event): void
    {
        if ($event->getRequest()->hasSession()) {
            $this->sessions->end($event->getRequest()->getSession());
        }
    }
}
