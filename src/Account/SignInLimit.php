<?php

declare(strict_types=1);

namespace App\Account;

use App\Api\Problem;
use Psr\Clock\ClockInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\Event\ResponseEvent;

/**
 * After ten failures of one name from one address within ten minutes, that name waits there for the rest of them. Others of
 * the office, behind the same address, do not; only an address or a name that fails far more often waits as a whole.
 */
final class SignInLimit
{
    private const MOST = 10;
    private const MOST_OF_ADDRESS = 100;
    private const MOST_OF_NAME = 100;
    private const WINDOW = '-10 minutes';
    private const PATH = '/api/login';

    public function __construct(private readonly SignInFailureRepository $failures, private readonly ClockInterface $clock)
    {
    }

    #[AsEventListener(priority: 11)]
    public function before(RequestEvent $event): void
    {
        if (self::PATH !== $event->getRequest()->getPathInfo()) {
            return;
        }
        ['name' => $name, 'address' => $address] = self::who($event->getRequest());
        $oldest = $this->clock->now()->modify(self::WINDOW);
        $isTooMany = $this->failures->since($oldest, ['name' => $name, 'address' => $address]) >= self::MOST
            || $this->failures->since($oldest, ['address' => $address]) >= self::MOST_OF_ADDRESS
            || $this->failures->since($oldest, ['name' => $name]) >= self::MOST_OF_NAME;
        if ($isTooMany) {
            $event->setResponse(Problem::response(429, 'Too many tries.', 'Wait ten minutes, then sign in again.'));
        }
    }

    #[AsEventListener]
    public function after(ResponseEvent $event): void
    {
        if (self::PATH !== $event->getRequest()->getPathInfo() || 401 !== $event->getResponse()->getStatusCode()) {
            return;
        }
        ['name' => $name, 'address' => $address] = self::who($event->getRequest());
        $now = $this->clock->now();
        $this->failures->add(new SignInFailure($name, $address, $now), $now->modify(self::WINDOW));
    }

    /** @return array{name: string, address: string} */
    private static function who(Request $request): array
    {
        $data = json_decode($request->getContent(), true, 4);
        $name = \is_array($data) && \is_string($data['username'] ?? null) ? $data['username'] : '';

        return ['name' => hash('xxh128', mb_strtolower($name)), 'address' => (string) $request->getClientIp()];
    }
}
