<?php

declare(strict_types=1);

namespace Mensura\Exchange\PositionReport;

use Mensura\Fault\UnusableInput;

/**
 * The answer of a positioning service as plain text: a line "POSITION REPORT 1", then a key and its value a line, with a colon
 * between (docs/formats.md). Coordinates are geocentric, metres, in the named frame at the named epoch.
 */
final readonly class PositionReport
{
    private const TITLE = 'POSITION REPORT 1';

    /**
     * @param string                     $frame code of the geographic system, as EPSG:4258
     * @param float                      $epoch decimal year
     * @param array{float, float, float} $place of the marker, geocentric, metres
     * @param array{float, float, float} $sd    east, north, up, metres
     */
    public function __construct(
        public string $marker, public string $frame, public float $epoch, public array $place, public array $sd, public string $method,
        public string $file,
    ) {
    }

    /** @throws UnusableInput naming the line */
    public static function read(string $text, string $name): self
    {
        $lines = preg_split('/\r\n|\n|\r/', trim($text)) ?: [];
        if (self::TITLE !== trim($lines[0] ?? '')) {
            throw new UnusableInput("$name line 1", \sprintf('is no position report: its first line is not "%s"', self::TITLE));
        }
        $values = $at = [];
        foreach ($lines as $k => $line) {
            if (0 === $k || '' === trim($line) || str_starts_with(trim($line), '#')) {
                continue;
            }
            $colon = strpos($line, ':');
            if (false === $colon) {
                throw new UnusableInput(\sprintf('%s line %d', $name, $k + 1), 'a line is a key and its value, with a colon between');
            }
            $key = strtolower(trim(substr($line, 0, $colon)));
            $values[$key] = trim(substr($line, $colon + 1));
            $at[$key] = $k + 1;
        }
        $number = static function (string $key) use ($values, $at, $name): float {
            $text = $values[$key] ?? throw new UnusableInput($name, \sprintf('names no %s', $key));
            if (!is_numeric($text)) {
                throw new UnusableInput(\sprintf('%s line %d', $name, $at[$key]), \sprintf('"%s" is not a number', mb_scrub($text)));
            }

            return (float) $text;
        };
        $frame = strtoupper($values['frame'] ?? throw new UnusableInput($name, 'names no frame'));
        if (1 !== preg_match('/EPSG:[0-9]{4,6}/', $frame, $m)) {
            throw new UnusableInput(\sprintf('%s line %d', $name, $at['frame']), 'its frame is not named by an EPSG code');
        }
        $place = [$number('x'), $number('y'), $number('z')];
        $radius = sqrt($place[0] ** 2 + $place[1] ** 2 + $place[2] ** 2);
        if ($radius < 6.3e6 || $radius > 6.5e6) {
            throw new UnusableInput(\sprintf('%s line %d', $name, $at['x']), 'X, Y and Z are no place on the earth');
        }

        return new self(
            $values['marker'] ?? '', $m[0], $number('epoch'), $place,
            [$number('sd east'), $number('sd north'), $number('sd up')], $values['method'] ?? '', $values['file'] ?? '',
        );
    }

    public function write(): string
    {
        return implode("\n", [
            self::TITLE, 'file: '.$this->file, 'marker: '.$this->marker, 'frame: '.$this->frame, \sprintf('epoch: %.3f', $this->epoch),
            \sprintf('X: %.4f', $this->place[0]), \sprintf('Y: %.4f', $this->place[1]), \sprintf('Z: %.4f', $this->place[2]),
            \sprintf('sd east: %.4f', $this->sd[0]), \sprintf('sd north: %.4f', $this->sd[1]), \sprintf('sd up: %.4f', $this->sd[2]),
            'method: '.$this->method, '',
        ]);
    }
}
