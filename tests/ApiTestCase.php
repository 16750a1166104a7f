<?php

declare(strict_types=1);

namespace App\Tests;

use App\Account\User;
use App\Api\PackedAnswer;
use App\Project\Membership;
use App\Project\Project;
use App\Project\Role;
use Demo\Generator;
use Demo\TruthModel;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\KernelBrowser;
use Symfony\Bundle\FrameworkBundle\Test\WebTestCase;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;

/** Drives the API as the interface does: signed in, with the token, JSON in and out. Jobs run at once. */
abstract class ApiTestCase extends WebTestCase
{
    protected KernelBrowser $client;
    protected int $project;
    /** @var array<string, string> sent along with the next requests */
    protected array $headers = [];
    protected string $token = '';

    protected function setUp(): void
    {
        $this->client = self::createClient();
        $this->client->disableReboot();
        $owner = $this->account('owner');
        $this->project = $this->projectOf($owner)->id();
        $this->signIn($owner);
    }

    /**
     * @template T of object
     *
     * @param class-string<T> $class
     *
     * @return T
     */
    protected function service(string $class): object
    {
        $service = self::getContainer()->get($class);
        self::assertInstanceOf($class, $service);

        return $service;
    }

    protected function entities(): EntityManagerInterface
    {
        return $this->service(EntityManagerInterface::class);
    }

    protected function database(): Connection
    {
        return $this->service(Connection::class);
    }

    protected function account(string $name): User
    {
        $user = new User($name, ucfirst($name));
        $user->setPasswordHash($this->service(UserPasswordHasherInterface::class)->hashPassword($user, 'long enough password'));
        $this->entities()->persist($user);
        $this->entities()->flush();

        return $user;
    }

    protected function projectOf(User $owner, string $reference = TruthModel::SYSTEM): Project
    {
        $project = new Project(
            'Test', $reference, Project::PLANE === $reference ? 'local' : 'ellipsoidal',
            new \DateTimeImmutable('2031-05-04T09:00:00Z'),
        );
        $this->entities()->persist($project);
        $this->entities()->persist(new Membership($this->entities()->find(User::class, $owner->id()) ?? $owner, $project, Role::Owner));
        $this->entities()->flush();

        return $project;
    }

    protected function signIn(User $user): void
    {
        $this->client->loginUser($user);
        $this->token = $this->get('/api/session')['token'];
    }

    /** @return array<mixed> */
    protected function get(string $path, int $status = 200): array
    {
        return $this->call('GET', $path, null, $status);
    }

    /**
     * @param array<mixed> $body
     *
     * @return array<mixed>
     */
    protected function post(string $path, array $body = [], int $status = 200): array
    {
        return $this->call('POST', $path, $body, $status);
    }

    /**
     * @param ?array<mixed> $body
     *
     * @return array<mixed>
     */
    protected function call(string $method, string $path, ?array $body, int $status, bool $withToken = true): array
    {
        $path = str_starts_with($path, '/api') ? $path : "/api/projects/{$this->project}$path";
        $server = ['CONTENT_TYPE' => 'application/json', 'HTTP_ACCEPT' => 'application/json']
            + ($withToken ? ['HTTP_X_MENSURA_TOKEN' => $this->token] : []) + $this->headers;
        $this->client->request(
            $method, $path, [], [], $server,
            null === $body ? null : json_encode([] === $body ? new \stdClass() : $body, \JSON_THROW_ON_ERROR),
        );
        $response = $this->client->getResponse();
        self::assertSame($status, $response->getStatusCode(), "$method $path: ".substr((string) $response->getContent(), 0, 800));
        $content = (string) $response->getContent();
        if (PackedAnswer::TYPE === $response->headers->get('Content-Type')) {
            return Unpack::answer($content);
        }

        return '' === $content ? [] : json_decode($content, true, 64, \JSON_THROW_ON_ERROR);
    }

    /** @return array<mixed> the preview */
    protected function bring(string $name, string $contents, int $status = 201): array
    {
        return $this->upload('/intake', $name, $contents, $status);
    }

    /** @return array<mixed> */
    protected function upload(string $path, string $name, string $contents, int $status = 201): array
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'up');
        file_put_contents($file, $contents);
        $this->client->request(
            'POST', "/api/projects/{$this->project}$path", [],
            ['file' => new UploadedFile($file, $name, null, null, true)],
            ['HTTP_X_MENSURA_TOKEN' => $this->token, 'HTTP_ACCEPT' => 'application/json'] + $this->headers,
        );
        self::assertSame(
            $status, $this->client->getResponse()->getStatusCode(),
            substr((string) $this->client->getResponse()->getContent(), 0, 800),
        );

        return json_decode((string) $this->client->getResponse()->getContent(), true, 64, \JSON_THROW_ON_ERROR);
    }

    /** @return array<mixed> */
    protected function postText(string $path, string $text, int $status = 201): array
    {
        $this->client->request(
            'POST', "/api/projects/{$this->project}$path", [], [],
            ['CONTENT_TYPE' => 'application/json', 'HTTP_X_MENSURA_TOKEN' => $this->token, 'HTTP_ACCEPT' => 'application/json'],
            $text,
        );
        self::assertSame(
            $status, $this->client->getResponse()->getStatusCode(),
            substr((string) $this->client->getResponse()->getContent(), 0, 800),
        );

        return json_decode((string) $this->client->getResponse()->getContent(), true, 64, \JSON_THROW_ON_ERROR);
    }

    protected function download(string $path): string
    {
        $this->client->request('GET', "/api/projects/{$this->project}$path");
        $content = $this->client->getInternalResponse()->getContent();
        self::assertSame(200, $this->client->getResponse()->getStatusCode(), substr($content, 0, 800));

        return $content;
    }

    /**
     * @param array<mixed> $preview
     *
     * @return array<mixed> the preview when its questions are answered: ellipsoidal heights, far away on purpose
     */
    protected function answered(array $preview): array
    {
        return [] === ($preview['meaning']['asks'] ?? [])
            ? $preview
            : $this->call('PUT', "/intake/{$preview['id']}/meaning", ['heights' => 'ellipsoidal', 'swap' => false, 'far' => true], 200);
    }

    /** @return array<mixed> the preview */
    protected function accept(string $name, string $contents): array
    {
        $preview = $this->answered($this->bring($name, $contents));
        $this->post("/intake/{$preview['id']}/accept");

        return $preview;
    }

    /** All files of the demo project, accepted. */
    protected function acceptDemoFiles(): void
    {
        foreach ((new Generator(new TruthModel()))->files() as $name => $contents) {
            $this->accept($name, $contents);
        }
    }

    /**
     * @param array<mixed> $body
     *
     * @return array<mixed> the job when it is over
     */
    protected function job(string $path, array $body = []): array
    {
        $id = $this->post($path, $body, 202)['job'];

        return $this->get("/jobs/$id");
    }

    /** @return array<string, list<string>> reasons by slot */
    protected function stale(): array
    {
        return array_column($this->get('')['stale'], 'reasons', 'slot');
    }

    protected function undoLast(): void
    {
        $last = $this->get('')['undo'];
        $this->post("/ledger/$last/undo");
    }
}
