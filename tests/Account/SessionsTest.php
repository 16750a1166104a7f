<?php

declare(strict_types=1);

namespace App\Tests\Account;

use App\Tests\ApiTestCase;
use Symfony\Bundle\FrameworkBundle\KernelBrowser;

/** Signing in, and where one is signed in: limits, other places, idleness, another password, foreign pages. */
final class SessionsTest extends ApiTestCase
{
    private const PASSWORD = 'long enough password';

    /** @param array<string, string> $server */
    private function browser(array $server = []): KernelBrowser
    {
        $browser = new KernelBrowser(
            self::$kernel ?? self::fail('no kernel'),
            $server + ['REMOTE_ADDR' => '10.9.8.7', 'HTTP_USER_AGENT' => 'Browser of the office'],
        );
        $browser->disableReboot();

        return $browser;
    }

    /**
     * @param array<mixed>|null     $body
     * @param array<string, string> $server
     */
    private function ask(KernelBrowser $browser, string $method, string $path, ?array $body = null, array $server = []): int
    {
        $browser->request('GET', '/api/session');
        $token = json_decode((string) $browser->getResponse()->getContent(), true)['token'];
        $server += ['CONTENT_TYPE' => 'application/json', 'HTTP_X_MENSURA_TOKEN' => $token];
        $browser->request($method, $path, [], [], $server, null === $body ? null : json_encode($body, \JSON_THROW_ON_ERROR));

        return $browser->getResponse()->getStatusCode();
    }

    private function in(KernelBrowser $browser, string $password = self::PASSWORD, string $name = 'owner'): int
    {
        return $this->ask($browser, 'POST', '/api/login', ['username' => $name, 'password' => $password]);
    }

    public function testOneWhoGuessesDoesNotLockOutTheOffice(): void
    {
        $this->account('colleague');
        $guesser = $this->browser();
        for ($i = 0; $i < 10; ++$i) {
            self::assertSame(401, $this->in($guesser, 'guess'));
        }
        self::assertSame(429, $this->in($guesser, 'guess'));
        self::assertSame(429, $this->in($guesser), 'Even with the right one.');
        self::assertSame(200, $this->in($this->browser(), self::PASSWORD, 'colleague'), 'Behind the same address.');
        self::assertSame(200, $this->in($this->browser(['REMOTE_ADDR' => '10.1.1.1'])), 'The same name from elsewhere.');
    }

    public function testAnUnknownNameTakesAsLongAsAKnownOne(): void
    {
        // Once for the cost of preparing; then the work is the same: one verification of a hash.
        $this->in($this->browser(), 'guess', 'nobody');
        $time = function (string $name): float {
            $times = [];
            for ($i = 0; $i < 3; ++$i) {
                $browser = $this->browser(['REMOTE_ADDR' => '10.2.2.'.random_int(1, 250)]);
                $start = hrtime(true);
                self::assertSame(401, $this->in($browser, 'guess', $name));
                $times[] = (float) (hrtime(true) - $start);
            }

            return min($times);
        };
        self::assertEqualsWithDelta(1.0, $time('nobody') / $time('owner'), 0.6);
    }

    public function testPlacesAreListedAndSignedOutFromAnother(): void
    {
        $desk = $this->browser();
        $field = $this->browser(['HTTP_USER_AGENT' => 'Tablet', 'REMOTE_ADDR' => '10.3.3.3']);
        self::assertSame([200, 200], [$this->in($desk), $this->in($field)]);
        self::assertSame(200, $this->ask($desk, 'GET', '/api/account/sessions'));
        $places = json_decode((string) $desk->getResponse()->getContent(), true);
        self::assertEqualsCanonicalizing(
            [['Tablet', '10.3.3.3', false], ['Browser of the office', '10.9.8.7', true]],
            array_map(static fn (array $p): array => [$p['agent'], $p['address'], $p['current']], $places),
        );
        $tablet = array_column($places, 'id', 'agent')['Tablet'];
        self::assertSame(200, $this->ask($desk, 'DELETE', "/api/account/sessions/$tablet"));
        self::assertSame(401, $this->ask($field, 'GET', '/api/projects'));
        self::assertSame(200, $this->ask($desk, 'GET', '/api/projects'));
        // Nobody ends what is another's.
        $this->account('colleague');
        $other = $this->browser();
        $this->in($other, self::PASSWORD, 'colleague');
        $mine = array_column($places, 'id', 'agent')['Browser of the office'];
        $this->ask($other, 'DELETE', "/api/account/sessions/$mine");
        self::assertSame(200, $this->ask($desk, 'GET', '/api/account/sessions'));
        $this->ask($desk, 'POST', '/api/logout');
        self::assertSame(0, (int) $this->database()->fetchOne(
            'SELECT COUNT(*) FROM user_session s JOIN account a ON a.id = s.user_id WHERE a.username = ?',
            ['owner'],
        ));
    }

    public function testAnIdleSessionEndsAndAskingForNewsDoesNotKeepItAlive(): void
    {
        $browser = $this->browser();
        $this->in($browser);
        $age = fn (int $minutes) => $this->database()->executeStatement(
            'UPDATE user_session SET used_at = ?', [gmdate('Y-m-d H:i:s', time() - 60 * $minutes)],
        );
        $used = fn (): string => (string) $this->database()->fetchOne('SELECT used_at FROM user_session');
        $age(700);
        $before = $used();
        $browser->request('GET', '/api/projects', [], [], ['HTTP_X_MENSURA_NEWS' => '1']);
        self::assertSame([200, $before], [$browser->getResponse()->getStatusCode(), $used()]);
        $browser->request('GET', '/api/projects');
        self::assertGreaterThan($before, $used());
        $age(721);
        $browser->request('GET', '/api/projects');
        self::assertSame(401, $browser->getResponse()->getStatusCode());
        self::assertStringContainsString('not used for long', (string) $browser->getResponse()->getContent());
    }

    public function testAnotherPasswordEndsTheOtherSessions(): void
    {
        $desk = $this->browser();
        $field = $this->browser();
        $this->in($desk);
        $this->in($field);
        self::assertSame(422, $this->ask($desk, 'PUT', '/api/account/password', ['current' => 'wrong', 'new' => 'another long password']));
        self::assertSame('/current', json_decode((string) $desk->getResponse()->getContent(), true)['errors'][0]['pointer']);
        self::assertSame(422, $this->ask($desk, 'PUT', '/api/account/password', ['current' => self::PASSWORD, 'new' => 'short']));
        self::assertSame(
            200,
            $this->ask($desk, 'PUT', '/api/account/password', ['current' => self::PASSWORD, 'new' => 'another long password']),
        );
        self::assertSame(401, $this->ask($field, 'GET', '/api/projects'));
        self::assertSame(200, $this->ask($desk, 'GET', '/api/projects'));
        self::assertSame([401, 200], [$this->in($this->browser()), $this->in($this->browser(), 'another long password')]);
    }

    public function testPreferencesArePersonalAndBounded(): void
    {
        $desk = $this->browser();
        $this->in($desk);
        self::assertSame(204, $this->ask($desk, 'PUT', '/api/account/preferences/table.observations', ['hidden' => ['sd']]));
        $again = ['hidden' => ['at'], 'widths' => ['to' => 90]];
        self::assertSame(204, $this->ask($desk, 'PUT', '/api/account/preferences/table.observations', $again));
        self::assertSame(200, $this->ask($desk, 'GET', '/api/account/preferences'));
        self::assertJsonStringEqualsJsonString(
            '{"table.observations": {"hidden": ["at"], "widths": {"to": 90}}}', (string) $desk->getResponse()->getContent(),
        );
        self::assertSame(422, $this->ask($desk, 'PUT', '/api/account/preferences/table.long', ['hidden' => [str_repeat('x', 4000)]]));
        self::assertSame(401, $this->ask($this->browser(), 'GET', '/api/account/preferences'));
    }

    public function testAForeignPageIsRefusedEvenWithTheToken(): void
    {
        $browser = $this->browser();
        $this->in($browser);
        $units = ['length' => 'ft', 'angle' => 'gon', 'decimals' => 2];
        $path = "/api/projects/{$this->project}/units";
        foreach (['https://evil.example', 'http://localhost.evil.example', 'null', 'https://localhost'] as $origin) {
            self::assertSame(403, $this->ask($browser, 'PUT', $path, $units, ['HTTP_ORIGIN' => $origin]), $origin);
        }
        self::assertSame(200, $this->ask($browser, 'PUT', $path, $units, ['HTTP_ORIGIN' => 'http://localhost']));
    }
}
