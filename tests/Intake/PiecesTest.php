<?php

declare(strict_types=1);

namespace App\Tests\Intake;

use App\Tests\ApiTestCase;
use Symfony\Component\HttpFoundation\File\UploadedFile;

/** A file that comes in pieces is the file; what goes wrong on the way leaves nothing behind. */
final class PiecesTest extends ApiTestCase
{
    private const KEY = '0123456789abcdef0123456789abcdef';

    protected function tearDown(): void
    {
        array_map(unlink(...), glob(sys_get_temp_dir().'/mensura-piece-*-'.self::KEY.'*') ?: []);
        parent::tearDown();
    }

    /** @return array<string, mixed> */
    private function piece(string $bytes, int $at, int $size, int $status, string $key = self::KEY): array
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'piece');
        file_put_contents($path, $bytes);
        $this->client->request(
            'POST', "/api/projects/{$this->project}/intake/pieces", ['key' => $key, 'at' => (string) $at, 'size' => (string) $size],
            ['file' => new UploadedFile($path, 'scan.xyz', null, null, true)],
            ['HTTP_X_MENSURA_TOKEN' => $this->token, 'HTTP_ACCEPT' => 'application/json'],
        );
        $response = $this->client->getResponse();
        self::assertSame($status, $response->getStatusCode(), (string) $response->getContent());

        return json_decode((string) $response->getContent(), true, 64, \JSON_THROW_ON_ERROR);
    }

    public function testPiecesMakeTheFile(): void
    {
        $lines = '';
        for ($i = 0; $i < 400; ++$i) {
            $lines .= \sprintf("%.3f %.3f %.3f\n", 493000.5 + $i % 20, 6028000.5 + intdiv($i, 20), 220.25);
        }
        $parts = str_split($lines, 5_000);
        $at = 0;
        foreach ($parts as $k => $part) {
            $isLast = $k === \count($parts) - 1;
            $answer = $this->piece($part, $at, \strlen($lines), $isLast ? 201 : 202);
            if (0 === $k) {
                self::assertSame(5_000, $answer['received']);
                // Its answer was lost: sent again it changes nothing.
                $this->piece($part, 0, \strlen($lines), 202);
            }
            $at += \strlen($part);
        }
        self::assertSame(['scan.xyz', 'cloud', ['points' => 400]], [$answer['name'], $answer['kind'], $answer['counts']]);
        [$file] = $this->get('/intake')['files'];
        self::assertSame([hash('sha256', $lines), \strlen($lines)], [$file['sha256'], $file['size']]);
        self::assertSame([], glob(sys_get_temp_dir().'/mensura-piece-*-'.self::KEY));
        // The answer to the last piece was lost: sent again it is answered as before, and the file stands there once.
        $again = $this->piece(end($parts), $at - \strlen(end($parts)), \strlen($lines), 201);
        self::assertSame($answer, $again);
        self::assertCount(1, $this->get('/intake')['files']);
    }

    public function testWhatGoesWrongIsSaid(): void
    {
        $at = static fn (array $answer): string => json_encode($answer, \JSON_THROW_ON_ERROR);
        self::assertStringContainsString('hexadecimal', $at($this->piece('abc', 0, 9, 422, 'x')));
        self::assertStringContainsString('is more than 8 GB', $at($this->piece('abc', 0, \PHP_INT_MAX, 422)));
        self::assertStringContainsString('0 bytes have arrived', $at($this->piece('abc', 3, 9, 422)));
        $this->piece('abc', 0, 9, 202);
        self::assertStringContainsString('3 bytes have arrived', $at($this->piece('xyz', 6, 9, 422)));
        self::assertStringContainsString('is less than what has come', $at($this->piece('0123456789', 3, 9, 422)));
        self::assertSame([], glob(sys_get_temp_dir().'/mensura-piece-*-'.self::KEY));
        self::assertSame([], $this->get('/intake')['files']);
    }
}
