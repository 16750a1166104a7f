<?php

declare(strict_types=1);

namespace App\Account;

use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Session\SessionInterface;

/** Where an account is signed in. A session begins here, and ends when its row is gone. */
final class Sessions
{
    private const KEY = 'mensura.session';
    /** Use is written down this often at most. */
    private const USE_EVERY_SECONDS = 60;
    private const LONGEST_AGENT = 200;

    public function __construct(
        private readonly UserSessionRepository $sessions,
        private readonly UserRepository $users,
        private readonly ClockInterface $clock,
        #[Autowire('%env(int:SESSION_IDLE_MINUTES)%')] private readonly int $idleMinutes,
    ) {
    }

    public function begin(User $user, Request $request): void
    {
        $secret = bin2hex(random_bytes(24));
        $request->getSession()->set(self::KEY, $secret);
        $this->sessions->endUnused($this->oldest());
        $owner = $this->users->find($user->id()) ?? $user;
        $agent = mb_substr(mb_scrub((string) $request->headers->get('User-Agent')), 0, self::LONGEST_AGENT);
        $this->sessions->add(new UserSession($owner, self::hash($secret), (string) $request->getClientIp(), $agent, $this->clock->now()));
    }

    /**
     * Whether the session of a request still stands.
     *
     * @param bool $isUse a request someone made, not the page's own asking for news
     */
    public function stands(SessionInterface $session, bool $isUse): bool
    {
        $secret = $session->get(self::KEY);
        $row = \is_string($secret) ? $this->sessions->keyed(self::hash($secret)) : null;
        if (null === $row || $row->usedAt < $this->oldest()) {
            return false;
        }
        $now = $this->clock->now();
        if ($isUse && $now->getTimestamp() - $row->usedAt->getTimestamp() >= self::USE_EVERY_SECONDS) {
            $this->sessions->used($row, $now);
        }

        return true;
    }

    public function isThis(UserSession $row, SessionInterface $session): bool
    {
        return self::key($session) === $row->sessionKey;
    }

    public function end(SessionInterface $session): void
    {
        $row = $this->sessions->keyed(self::key($session));
        if (null !== $row) {
            $this->sessions->end($row->user, $row->id());
        }
    }

    public function endOthers(User $user, SessionInterface $session): void
    {
        $this->sessions->endOthers($user, self::key($session));
    }

    private function oldest(): \DateTimeImmutable
    {
        return $this->clock->now()->modify(\sprintf('-%d minutes', $this->idleMinutes));
    }

    private static function key(SessionInterface $session): string
    {
        return self::hash((string) $session->get(self::KEY));
    }

    private static function hash(string $secret): string
    {
        return hash('sha256', $secret);
    }
}
