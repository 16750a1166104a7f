<?php

declare(strict_types=1);

namespace Mensura\Exchange\Photo;

use Mensura\Fault\UnusableInput;

/**
 * What a JPEG image says of itself (Exif 2.3, JEITA CP-3451): its size, camera, time, and where it was taken: degrees of WGS 84 and
 * metres as the tag GPSAltitude has them.
 */
final readonly class PhotoExif
{
    private function __construct(
        public int $width, public int $height, public string $camera, public ?string $at, public ?float $latitude, public ?float $longitude,
        public ?float $altitude, public ?float $focalMillimetres,
    ) {
    }

    public static function isJpeg(string $head): bool
    {
        return str_starts_with($head, "\xFF\xD8\xFF");
    }

    /**
     * @param string $name for messages
     *
     * @throws UnusableInput where it is no whole JPEG image
     */
    public static function read(string $path, string $name): self
    {
        $size = @getimagesize($path);
        if (false === $size || \IMAGETYPE_JPEG !== $size[2] || $size[0] < 1 || $size[1] < 1) {
            throw new UnusableInput($name, 'is no JPEG image, or its head is cut off');
        }
        // The end of image; cameras may write more behind it.
        $tail = (string) file_get_contents($path, offset: max(0, (int) filesize($path) - 65536));
        if (!str_contains($tail, "\xFF\xD9")) {
            throw new UnusableInput($name, 'ends before its image does: it is cut off');
        }
        // What is not understood of the tags is warned about; the image is none the worse for it.
        $tags = @exif_read_data($path) ?: [];
        $text = static fn (string $key): string => \is_string($tags[$key] ?? null) ? trim(mb_scrub($tags[$key], 'UTF-8')) : '';
        $latitude = self::degrees($tags['GPSLatitude'] ?? null, $text('GPSLatitudeRef'), 'S', 90.0);
        $longitude = self::degrees($tags['GPSLongitude'] ?? null, $text('GPSLongitudeRef'), 'W', 180.0);
        $altitude = self::ratio($tags['GPSAltitude'] ?? null);
        $isBelow = \in_array($tags['GPSAltitudeRef'] ?? '', ["\x01", '1', 1], true);
        $taken = date_create_immutable_from_format('Y:m:d H:i:s', $text('DateTimeOriginal') ?: $text('DateTime'));

        return new self(
            $size[0], $size[1], trim($text('Make').' '.$text('Model')), false === $taken ? null : $taken->format('Y-m-d\TH:i:s'),
            null === $longitude ? null : $latitude, null === $latitude ? null : $longitude,
            null === $altitude ? null : ($isBelow ? -$altitude : $altitude), self::ratio($tags['FocalLength'] ?? null),
        );
    }

    private static function degrees(mixed $parts, string $half, string $negative, float $most): ?float
    {
        if (!\is_array($parts) || 3 !== \count($parts)) {
            return null;
        }
        $degrees = 0.0;
        foreach (array_values($parts) as $k => $part) {
            $value = self::ratio($part);
            if (null === $value) {
                return null;
            }
            $degrees += $value / 60 ** $k;
        }

        return abs($degrees) > $most ? null : (strtoupper($half) === $negative ? -$degrees : $degrees);
    }

    /** Of "22125/100". */
    private static function ratio(mixed $text): ?float
    {
        if (!\is_string($text) || 1 !== preg_match('~^(-?\d+)/(\d+)$~D', $text, $m) || 0 === (int) $m[2]) {
            return null;
        }

        return (float) $m[1] / (float) $m[2];
    }
}
