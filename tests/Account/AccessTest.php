<?php

declare(strict_types=1);

namespace App\Tests\Account;

use App\Project\Membership;
use App\Project\Project;
use App\Project\Role;
use App\Tests\ApiTestCase;

final class AccessTest extends ApiTestCase
{
    private const CHANGES = [
        ['POST', '/network/adjust'], ['POST', '/network/accept'], ['POST', '/recompute'], ['POST', '/intake'],
        ['POST', '/handover', ['kind' => 'csv']],
        ['PUT', '/units', ['length' => 'ft', 'angle' => 'gon', 'decimals' => 2]], ['POST', '/ledger/1/undo'], ['POST', '/ledger/1/back'],
        ['POST', '/network/use', ['rows' => [['id' => 1, 'component' => null]], 'aside' => true]],
        ['POST', '/points/rename', ['from' => 'A', 'to' => 'B']],
        ['PUT', '/reference', ['reference' => 'EPSG:25829', 'heights' => 'ellipsoidal']],
        ['POST', '/reference/custom', ['name' => 'x', 'definition' => 'EPSG:25830']],
        ['POST', '/reference/design', ['height' => 1, 'name' => 'x', 'south' => 1, 'west' => 1, 'north' => 2, 'east' => 2]],
        ['POST', '/reference/ground', ['point' => 'A', 'name' => 'x']], ['POST', '/reference/grids'], [
            'POST',
            '/reference/extract',
            ['geoid' => 'installed:egm96_15.gtx', 'by' => 'corners', 'south' => 1, 'west' => 1, 'north' => 2, 'east' => 2],
        ],
        ['POST', '/reference/localizations', ['pairs' => [], 'system' => 'EPSG:25830']],
        ['POST', '/reference/localizations/import', ['format' => 'x']], ['POST', '/reference/localizations/1/apply'],
        ['PUT', '/intake/1/meaning', ['frame' => 'local']],
        ['POST', '/terrain/surfaces', ['name' => 'S', 'roles' => ['surveyed']]],
        ['POST', '/terrain/volumes', ['name' => 'V', 'surface' => 1, 'against' => 'rim']],
    ];

    public function testReviewersReadAndChangeNothing(): void
    {
        $reviewer = $this->account('reviewer');
        $project = $this->entities()->find(Project::class, $this->project);
        self::assertNotNull($project);
        $this->entities()->persist(new Membership($reviewer, $project, Role::Reviewer));
        $this->entities()->flush();
        $this->signIn($reviewer);
        foreach ([
            '', '/points', '/network', '/terrain', '/handover', '/ledger', '/intake', '/jobs', '/search?q=a',
            '/reference', '/reference/systems?q=utm', '/reference/factors',
        ] as $path) {
            $this->get($path);
        }
        self::assertFalse($this->get('')['mayChange']);
        foreach (self::CHANGES as $change) {
            $problem = $this->call($change[0], $change[1], $change[2] ?? [], 403);
            self::assertSame('Your role in this project does not allow this.', $problem['title']);
        }
    }

    public function testOwnersManagePeople(): void
    {
        $this->account('helper');
        self::assertSame(
            ['owner', 'editor'],
            array_column($this->call('PUT', '/members', ['username' => 'helper', 'role' => 'editor'], 200), 'role'),
        );
        self::assertStringContainsString(
            'keeps at least one owner',
            $this->call('PUT', '/members', ['username' => 'owner', 'role' => 'reviewer'], 422)['detail'],
        );
        self::assertStringContainsString(
            'there is no account "nobody"',
            $this->call('PUT', '/members', ['username' => 'nobody', 'role' => 'editor'], 422)['detail'],
        );
        $this->signIn($this->entities()->getRepository(\App\Account\User::class)->findOneBy(['username' => 'helper']) ?? self::fail());
        self::assertTrue($this->get('')['mayChange']);
        $this->call('PUT', '/members', ['username' => 'helper', 'role' => 'owner'], 403);
    }

    public function testStrangersFindNothing(): void
    {
        $this->signIn($this->account('stranger'));
        foreach ([
            '', '/points', '/network', '/ledger', '/intake/1/source', '/handover/1/file', '/terrain/surfaces/1/mesh',
            '/reference', '/reference/systems?q=utm', '/reference/grids/1.gtx', '/reference/custom/1.wkt',
            '/reference/localizations/1.json', '/reference/inverse?from=A&to=B', '/reference/undulation?lat=1&lon=1',
        ] as $path) {
            $this->get($path, 404);
        }
        foreach (self::CHANGES as $change) {
            $this->call($change[0], $change[1], $change[2] ?? [], 404);
        }
        self::assertSame([], $this->get('/api/projects'));
    }

    public function testWithoutTheTokenNothingChanges(): void
    {
        $problem = $this->call('PUT', '/units', ['length' => 'ft', 'angle' => 'gon', 'decimals' => 2], 403, false);
        self::assertSame('This page is out of date.', $problem['title']);
        self::assertSame('m', $this->get('')['units']['length']);
    }

    public function testAnswersCarryTheSecurityHeaders(): void
    {
        $this->client->request('GET', '/');
        $headers = $this->client->getResponse()->headers;
        self::assertStringContainsString("default-src 'self'", (string) $headers->get('Content-Security-Policy'));
        self::assertStringNotContainsString("script-src 'unsafe", (string) $headers->get('Content-Security-Policy'));
        self::assertSame('nosniff', $headers->get('X-Content-Type-Options'));
        self::assertSame('DENY', $headers->get('X-Frame-Options'));
    }

    public function testSigningIn(): void
    {
        self::ensureKernelShutdown();
        $client = self::createClient(server: ['REMOTE_ADDR' => '10.9.8.'.random_int(1, 250)]);
        $client->disableReboot();
        $client->request('GET', '/api/projects');
        self::assertSame(401, $client->getResponse()->getStatusCode());
        $try = static function (string $password) use ($client): int {
            $client->request('GET', '/api/session');
            $token = json_decode((string) $client->getResponse()->getContent(), true)['token'];
            $client->request(
                'POST', '/api/login', [], [],
                ['CONTENT_TYPE' => 'application/json', 'HTTP_X_MENSURA_TOKEN' => $token],
                json_encode(['username' => 'owner', 'password' => $password], \JSON_THROW_ON_ERROR),
            );

            return $client->getResponse()->getStatusCode();
        };
        self::assertSame(401, $try('wrong'));
        self::assertSame(200, $try('long enough password'));
        $client->request('GET', '/api/projects');
        self::assertSame(200, $client->getResponse()->getStatusCode());
    }

    public function testGuessingIsSlowedDown(): void
    {
        self::ensureKernelShutdown();
        $client = self::createClient(server: ['REMOTE_ADDR' => '10.1.'.random_int(1, 250).'.'.random_int(1, 250)]);
        $client->disableReboot();
        $client->request('GET', '/api/session');
        $token = json_decode((string) $client->getResponse()->getContent(), true)['token'];
        for ($i = 0; $i < 10; ++$i) {
            $client->request(
                'POST', '/api/login', [], [],
                ['CONTENT_TYPE' => 'application/json', 'HTTP_X_MENSURA_TOKEN' => $token],
                '{"username": "owner", "password": "guess"}',
            );
            self::assertSame(401, $client->getResponse()->getStatusCode());
        }
        $client->request(
            'POST', '/api/login', [], [], ['CONTENT_TYPE' => 'application/json', 'HTTP_X_MENSURA_TOKEN' => $token],
            '{"username": "owner", "password": "guess"}',
        );
        self::assertSame(429, $client->getResponse()->getStatusCode());
    }

    public function testPasswordsAreArgon2id(): void
    {
        self::assertStringStartsWith(
            '$argon2id$',
            (string) $this->database()->fetchOne("SELECT password_hash FROM account WHERE username = 'owner'"),
        );
    }

    /** Whatever the body is, the API answers with a problem and not with a defect. */
    public function testNonsenseIsAProblemNotADefect(): void
    {
        $bodies = ['', 'null', '[]', '{"rows": 5}', '{"e": "x"}', '{', '"text"', '{"name": ["a"], "roles": "b", "lines": [1, 2]}',
            '{"rows": [{"id": "zzz", "component": 7}], "aside": true}', '{"kind": {"a": 1}}', '{"elevation": "high"}',
            '{"name":"a","roles":["surveyed"],"lines":[{"role":"x"}]}', '{"length":[],"angle":1,"decimals":"q"}',
            '{"reference":"custom:99999999999999999999","heights":"geoid","geoid":"grid:1e9"}',
            '{"reference":"\u0000","heights":"ellipsoidal","operation":"x","epoch":"never"}',
            '{"name":"a","definition":"PROJCRS[[[["}',
            '{"name":"a","definition":"+proj=tmerc +lat_0=1e400 +ellps=x"}',
            '{"name":"a","method":9807,"parameters":{"8801":1e308,"8802":null,"8805":"x"},"lat":1e308,"lon":-1e308}',
            '{"height":1e308}', '{"height":100,"south":89,"west":179,"north":90,"east":-179,"name":"n"}',
            '{"geoid":"installed:../../../etc/passwd","by":"corners","south":1,"west":1,"north":2,"east":2}',
            '{"geoid":"installed:egm96_15.gtx","by":"radius","lat":90,"lon":180,"radiusKm":-5}',
            '{"geoid":"installed:egm96_15.gtx","by":"corners","south":-90,"west":-180,"north":90,"east":180,"step":0.0003}',
            '{"pairs":[1,"x",null],"system":"EPSG:25830"}',
            '{"pairs":[{"name":["n"],"localE":1,"localN":1,"gridE":1,"gridN":1}],"system":"EPSG:25830"}',
            '{"pairs":[{"name":"a","localE":0,"localN":0,"gridE":0,"gridN":0},'
                .'{"name":"b","localE":1e300,"localN":0,"gridE":1,"gridN":1e-300}],"system":"EPSG:25830","vertical":"plane"}',
            '{"format":"mensura-localization/1","horizontal":{"centre":{"e":1,"n":1},"shift":{"e":1,"n":1},"rotation":1,"scale":1},'
                .'"vertical":{"model":"none","shift":0,"slope":{"e":0,"n":0}},"name":["x"],"grid":{"system":["x"]}}',
            '{"frame":"EPSG:1","heights":"geoid","geoid":7,"swap":"no","far":2}',
        ];
        $token = $this->get('/api/session')['token'];
        foreach ([
            ['POST', '/network/use'], ['PUT', '/network/settings'], ['PUT', '/control'], ['POST', '/points/rename'],
            ['POST', '/network/screen'], ['POST', '/terrain/surfaces'], ['PUT', '/terrain/surfaces/7'],
            ['POST', '/terrain/volumes'], ['POST', '/handover'], ['PUT', '/units'], ['PUT', '/reference'],
            ['POST', '/reference/preview'], ['POST', '/reference/custom/try'], ['POST', '/reference/custom'],
            ['POST', '/reference/design'], ['POST', '/reference/ground'], ['POST', '/reference/grids'],
            ['POST', '/reference/extract/plan'], ['POST', '/reference/extract'],
            ['POST', '/reference/localizations/fit'], ['POST', '/reference/localizations'],
            ['POST', '/reference/localizations/import'], ['POST', '/reference/localizations/7/apply'],
            ['PUT', '/intake/7/meaning'], ['POST', '/intake'], ['PUT', '/intake/7/mapping'],
            ['POST', '/intake/7/accept'], ['POST', '/ledger/99/undo'], ['POST', '/ledger/99/back'],
            ['POST', '/network/accept'],
        ] as [$method, $path]) {
            foreach ($bodies as $body) {
                $this->client->request(
                    $method, "/api/projects/{$this->project}$path", [], [],
                    ['CONTENT_TYPE' => 'application/json', 'HTTP_X_MENSURA_TOKEN' => $token, 'HTTP_ACCEPT' => 'application/json'],
                    $body,
                );
                $status = $this->client->getResponse()->getStatusCode();
                self::assertLessThan(
                    500,
                    $status,
                    "$method $path $body: ".substr((string) $this->client->getResponse()->getContent(), 0, 300),
                );
                if ($status >= 400) {
                    self::assertSame(
                        'application/problem+json', $this->client->getResponse()->headers->get('Content-Type'),
                        "$method $path $body",
                    );
                    self::assertNotSame('', json_decode((string) $this->client->getResponse()->getContent(), true)['detail'] ?? '');
                }
            }
        }
    }
}
