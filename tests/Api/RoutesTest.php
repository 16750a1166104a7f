<?php

declare(strict_types=1);

namespace App\Tests\Api;

use App\Project\Membership;
use App\Project\Project;
use App\Project\Role;
use App\Tests\ApiTestCase;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\Routing\Route;
use Symfony\Component\Routing\RouterInterface;

/** Every address of the router: whom it lets in, and what it answers to nonsense. A new route is walked as it is added. */
final class RoutesTest extends ApiTestCase
{
    /** Addresses without a project in them that anyone may ask. */
    private const OPEN = ['/api/login', '/api/logout', '/api/session'];
    /** Unsafe by their method, but they change nothing: whoever may read may ask. */
    private const ASKING = ['/base/preview', '/base/report', '/features/preview',
        '/reference/preview', '/reference/custom/try', '/reference/design', '/reference/extract/plan',
        '/reference/localizations/fit', '/levels/draft', '/levels/read', '/book/places', '/traverse/draft', '/plan/draft',
        '/terrain/preview', '/held/fixes', '/rover/fixes', '/sheets/preview', '/sheets/fit', '/gis/count', '/cad/layers', '/rays',
        '/around', '/seen',
    ];

    /** They say something about the work and change none of it: every member may. */
    private const REVIEWING = ['/remarks'];

    private string $askedLast = '';

    /** @return iterable<string, array{string, string, Route}> method, path with numbers in its places, route */
    private function routes(string $number = '7'): iterable
    {
        foreach ($this->service(RouterInterface::class)->getRouteCollection() as $route) {
            if (!str_starts_with($route->getPath(), '/api')) {
                continue;
            }
            $path = strtr(
                $route->getPath(),
                ['{id}' => (string) $this->project, '{format}' => explode('|', $route->getRequirement('format') ?? 'x')[0]],
            );
            $path = (string) preg_replace('/\{\w+\}/', $number, $path);
            foreach ($route->getMethods() ?: ['GET'] as $method) {
                yield "$method {$route->getPath()}" => [$method, $path, $route];
            }
        }
    }

    /** @param array<string, string> $server */
    private function ask(string $method, string $path, string $body = '{}', array $server = []): int
    {
        if ('GET' !== $method && $this->askedLast !== $path) {
            // Asked for anew for every address, should one of them have ended the session.
            $this->token = $this->get('/api/session')['token'];
            $this->askedLast = $path;
        }
        $usual = [
            'CONTENT_TYPE' => 'application/json', 'HTTP_ACCEPT' => 'application/json', 'HTTP_X_MENSURA_TOKEN' => $this->token,
        ];
        $this->client->request($method, $path, [], [], $server + $usual, 'GET' === $method ? null : $body);

        return $this->client->getResponse()->getStatusCode();
    }

    public function testWithoutASessionOnlySigningInIsAnswered(): void
    {
        $walked = 0;
        $this->client->getCookieJar()->clear();
        foreach ($this->routes() as $name => [$method, $path, $route]) {
            if (!\in_array($route->getPath(), self::OPEN, true)) {
                ++$walked;
                self::assertSame(401, $this->ask($method, $path), $name);
            }
        }
        self::assertGreaterThan(45, $walked);
    }

    public function testAStrangerFindsNoProject(): void
    {
        $this->signIn($this->account('stranger'));
        foreach ($this->routes() as $name => [$method, $path, $route]) {
            if (str_contains($route->getPath(), '{id}')) {
                self::assertSame(404, $this->ask($method, $path), $name);
            }
        }
    }

    /** @return iterable<string, array{Role}> */
    public static function roles(): iterable
    {
        foreach (Role::cases() as $role) {
            yield $role->value => [$role];
        }
    }

    #[\PHPUnit\Framework\Attributes\DataProvider('roles')]
    public function testWhatARoleMayNotDoIsRefusedAtEveryAddress(Role $role): void
    {
        $member = $this->account('member');
        $project = $this->entities()->find(Project::class, $this->project) ?? self::fail('no project');
        $this->entities()->persist(new Membership($member, $project, $role));
        $this->entities()->flush();
        $this->signIn($member);
        foreach ($this->routes() as $name => [$method, $path, $route]) {
            if (!str_contains($route->getPath(), '{id}')) {
                continue;
            }
            $ends = static fn (string $a): bool => str_ends_with($route->getPath(), $a);
            $asks = 'GET' === $method || [] !== array_filter([...self::ASKING, ...self::REVIEWING], $ends);
            $manages = 'PUT' === $method && str_ends_with($route->getPath(), '/members');
            $may = $asks || Role::Owner === $role || Role::Editor === $role && !$manages;
            $status = $this->ask($method, $path);
            self::assertSame($may, 403 !== $status, "$name as {$role->value}: $status");
            self::assertLessThan(500, $status, $name);
        }
    }

    /** Nonsense of every kind to every address is a problem that says so, and changes nothing. */
    public function testNonsenseIsAProblemEverywhere(): void
    {
        $before = $this->get('')['ledgerCount'];
        $bodies = [
            '', 'null', '[]', '7', '"text"', '{', "\xFF\xFE{}", "{\"name\":\"\xC3\x28\"}",
            str_repeat('[', 600).str_repeat(']', 600), '{"name":1e999,"e":1e999,"elevation":1e999,"interval":1e999}',
            '{"rows":[{"id":"1","component":null}],"aside":true}',
            '{"rows":[{"id":[1],"component":["dx"]}],"aside":true}',
            '{"rows":[{"id":1.9,"component":7}],"aside":true}', '{"rows":7,"aside":[]}',
            '{"kind":["csv"],"surfaces":["1",[2],{"a":3}]}', '{"kind":"csv","surfaces":["1"]}', '{"kind":"juggle"}',
            '{"point":["A"],"e":[],"n":{},"h":"x","held":7}', '{"from":["a"],"to":{"b":1}}',
            '{"from":"\u0000","to":"\u202e"}',
            '{"name":["x"],"roles":{"a":1},"codes":"T","lines":[[1]],"interval":"x"}',
            '{"name":"x","roles":["surveyed",7],"lines":[{"role":"breakline","points":[1,[2]],"vertices":"no"}],"interval":1}',
            '{"reference":["EPSG:25830"],"heights":7,"epoch":"x"}',
            '{"columns":{"e":[1]},"kind":["points"],"units":7}', '{"columns":7,"kind":"points"}',
            '{"username":["x"],"role":["owner"]}', '{"pairs":{"a":1},"system":[1]}', '{"leaveOutBad":"maybe"}',
            '{"length":{"m":1},"angle":[],"decimals":9e99}',
            '{"geoid":[1],"by":[2],"south":"x"}', '{"definition":[1],"name":{"a":1},"parameters":{"8801":[1]}}',
            '{"parameters":7,"name":"x","method":"x"}', '{"frame":7,"heights":[],"far":"x"}',
        ];
        // Of what is alike for every address, each gets a third; together they get all of it.
        $turn = 0;
        foreach ($this->routes() as $name => [$method, $path]) {
            foreach ('GET' === $method ? ['{}'] : $bodies as $k => $body) {
                if ($k < 10 || 0 === ++$turn % 3) {
                    $this->problem($method, $path, $body, $name);
                }
            }
            $this->problem($method, $path, 'a=1', $name, ['CONTENT_TYPE' => 'application/x-www-form-urlencoded']);
            $this->problem($method, $path, '<a/>', $name, ['CONTENT_TYPE' => 'text/xml']);
        }
        foreach (['99999999999999999999', '٣', '-1', '1e1', '0x1', '1.5', '%00', '%FF', '..', '1%27', ' '] as $number) {
            foreach ($this->routes(rawurlencode(rawurldecode($number))) as $name => [$method, $path]) {
                $this->problem($method, $path, '{}', "$name with $number");
                if (0 === ++$turn % 3) {
                    $of = str_replace("/projects/{$this->project}", '/projects/'.rawurlencode($number), $path);
                    $this->problem($method, $of, '{}', "$name of project $number");
                }
            }
        }
        foreach (['q', 'from', 'to', 'point', 'lat', 'lon', 'geoid', 'reference', 'since'] as $field) {
            foreach ([
                "$field\[]=1", "$field\[a]\[b]=1", "$field=%FF%FE", "$field=%00", "$field=1e999",
                "$field=99999999999999999999", "$field=".str_repeat('x', 5000), "$field=%25%5C%27",
            ] as $query) {
                foreach ($this->routes() as $name => [$method, $path]) {
                    if ('GET' === $method && 0 === ++$turn % 3) {
                        $this->problem('GET', $path.'?'.stripslashes($query), '{}', "$name?$query");
                    }
                }
            }
        }
        self::assertSame($before, $this->get('')['ledgerCount']);
    }

    public function testFilesThatAreNoneAreProblemsToo(): void
    {
        foreach ([
            '', "\x00\x01\x02", "\xFF\xFE\x00", "NUM_OREC\x00", "II*\x00".str_repeat("\xFF", 64),
            str_repeat('a,', 5000)."\n1", "CDF\x01",
        ] as $contents) {
            foreach (['/intake', '/reference/grids'] as $path) {
                $file = (string) tempnam(sys_get_temp_dir(), 'up');
                file_put_contents($file, $contents);
                $upload = new UploadedFile($file, "na\xFFme\n.csv", null, null, true);
                $server = ['HTTP_X_MENSURA_TOKEN' => $this->get('/api/session')['token']];
                $this->client->request(
                    'POST', "/api/projects/{$this->project}$path", ['ellipsoid' => ['x' => 1]], ['file' => $upload],
                    $server,
                );
                $this->isProblem($path.' '.bin2hex(substr($contents, 0, 8)));
            }
        }
        $server = ['HTTP_X_MENSURA_TOKEN' => $this->get('/api/session')['token']];
        $this->client->request('POST', "/api/projects/{$this->project}/intake", [], ['file' => []], $server);
        $this->isProblem('no file');
    }

    /** @param array<string, string> $server */
    private function problem(string $method, string $path, string $body, string $name, array $server = []): void
    {
        if ('/api/logout' === $path) {
            return; // it understands anything, and ends the session of the walk
        }
        $this->ask($method, $path, $body, $server);
        $this->isProblem($name.' '.substr(mb_scrub($body), 0, 80));
    }

    private function isProblem(string $name): void
    {
        $response = $this->client->getResponse();
        $status = $response->getStatusCode();
        $content = (string) $this->client->getInternalResponse()->getContent();
        self::assertLessThan(500, $status, $name.': '.substr($content, 0, 300));
        if ($status >= 400) {
            self::assertSame('application/problem+json', $response->headers->get('Content-Type'), $name.': '.substr($content, 0, 200));
            self::assertNotSame('', json_decode($content, true)['detail'] ?? '', $name);
        }
    }
}
