<?php

declare(strict_types=1);

namespace App\Account;

use App\Api\Problem;
use Psr\Cache\CacheItemPoolInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\Event\ResponseEvent;

/** After ten failures from one address within ten minutes, sign-in waits for the rest of them. */
final class SignInLimit
{
    private const FAILURES = 10;
    private const SECONDS = 600;

    public function __construct(private readonly CacheItemPoolInterface $cache)
    {
    }

    #[AsEventListener(priority: 20)]
    public function before(RequestEvent $event): void
    {
        if ('/api/login' !== $event->getRequest()->getPathInfo()) {
            return;
        }
        if ((int) $this->cache->getItem($this->key($event->getRequest()->getClientIp()))->get() >= self::FAILURES) {
            $event->setResponse(Problem::response(429, 'Too many tries.', 'Wait ten minutes, then sign in again.'));
        }
    }

    #[AsEventListener]
    public function after(ResponseEvent $event): void
    {
        if ('/api/login' !== $event->getRequest()->getPathInfo() || 401 !== $event->getResponse()->getStatusCode()) {
            return;
        }
        $item = $this->cache->getItem($this->key($event->getRequest()->getClientIp()));
        $item->set((int) $item->get() + 1)->expiresAfter(self::SECONDS);
        $this->cache->save($item);
    }

    private function key(?string $address): string
    {
        return 'sign-in-'.hash('xxh128', (string) $address);
    }
}
