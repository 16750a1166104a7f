<?php

declare(strict_types=1);

namespace App\Tests\Intake;

use App\Tests\ApiTestCase;

/** Photos come in with what their tags say; the tags are written here by their numbers (Exif 2.3, tables 4, 7 and 12; from memory). */
final class PhotoTest extends ApiTestCase
{
    private const ASCII = 2;
    private const LONG = 4;
    private const RATIONAL = 5;

    /** An image of 8 by 6 pixels. */
    private static function image(): string
    {
        $image = imagecreatetruecolor(8, 6);
        ob_start();
        imagejpeg($image);

        return (string) ob_get_clean();
    }

    /**
     * A directory of tags, little endian.
     *
     * @param array<int, array{int, int, string}> $tags type, count and bytes by number
     */
    private static function directory(array $tags, int $at): string
    {
        ksort($tags);
        $body = pack('v', \count($tags));
        $more = '';
        $next = $at + 2 + 12 * \count($tags) + 4;
        foreach ($tags as $number => [$type, $count, $bytes]) {
            $isLong = \strlen($bytes) > 4;
            $body .= pack('vvV', $number, $type, $count).($isLong ? pack('V', $next + \strlen($more)) : str_pad($bytes, 4, "\0"));
            $more .= $isLong ? $bytes.(1 === \strlen($bytes) % 2 ? "\0" : '') : '';
        }

        return $body.pack('V', 0).$more;
    }

    private static function tagged(): string
    {
        $gps = self::directory([
            1 => [self::ASCII, 2, "N\0"], 2 => [self::RATIONAL, 3, pack('V6', 54, 1, 24, 1, 36, 100)],
            3 => [self::ASCII, 2, "W\0"], 4 => [self::RATIONAL, 3, pack('V6', 3, 1, 5, 1, 5412, 100)],
            6 => [self::RATIONAL, 1, pack('V2', 22125, 100)],
        ], 26);
        $main = self::directory([0x8825 => [self::LONG, 1, pack('V', 26)]], 8);
        self::assertSame(18, \strlen($main));
        $exif = "Exif\0\0II*\0".pack('V', 8).$main.$gps;

        return "\xFF\xD8\xFF\xE1".pack('n', \strlen($exif) + 2).$exif.substr(self::image(), 2);
    }

    public function testAPhotoSaysWhereItWasTaken(): void
    {
        $file = $this->bring('pole.jpg', self::tagged());
        self::assertSame('photo', $file['kind']);
        self::assertSame(['pixels across' => 8, 'pixels down' => 6], $file['counts']);
        self::assertSame([], $file['findings']);
        self::assertEqualsWithDelta(493612.345, $file['points'][0]['e'], 5.0);
        self::assertEqualsWithDelta(6028050.5, $file['points'][0]['n'], 30.0);
        $this->post("/intake/{$file['id']}/accept");
        self::assertSame([], $this->get('/points')['points']);
        self::assertSame(self::tagged(), $this->download("/intake/{$file['id']}/source"));
        $plain = $this->bring('plain.jpg', self::image());
        self::assertSame(['it does not say where it was taken'], array_column($plain['findings'], 'message'));
        $this->post("/intake/{$plain['id']}/accept");
    }

    public function testWhatIsCutOffIsRefused(): void
    {
        $file = $this->bring('half.jpg', substr(self::tagged(), 0, -120));
        self::assertStringContainsString('cut off', (string) $file['unreadable']);
    }
}
