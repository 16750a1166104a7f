<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rinex;

use Mensura\Fault\UnusableInput;

/** The lines of a RINEX file one by one, and what its first line says. */
final class HeaderLines
{
    public int $number = 0;
    public readonly float $version;
    public readonly string $type;

    /** System letter of the first line; G where it stands blank. */
    public readonly string $system;

    /** @var list<string> */
    private array $lines;

    /** @throws UnusableInput when it is no RINEX file of a version that is read */
    public function __construct(string $bytes, public readonly string $name)
    {
        $this->lines = explode("\n", $bytes);
        $first = $this->next() ?? '';
        if ('RINEX VERSION / TYPE' !== trim(substr($first, 60, 20))) {
            throw $this->fault('is not RINEX: the first line does not end on RINEX VERSION / TYPE');
        }
        $this->version = (float) substr($first, 0, 9);
        $this->type = strtoupper($first[20] ?? ' ');
        $letter = strtoupper($first[40] ?? ' ');
        $this->system = ' ' === $letter ? 'G' : $letter;
        if (!($this->version >= 2.0 && $this->version < 4.0)) {
            throw $this->fault(\sprintf('is RINEX %s; versions 2.11 and 3.02 to 3.05 are read', trim(substr($first, 0, 9))));
        }
    }

    /** @phpstan-impure */
    public function next(): ?string
    {
        $line = $this->lines[$this->number] ?? null;
        if (null === $line) {
            return null;
        }
        ++$this->number;

        return rtrim($line, "\r");
    }

    /** One line back. */
    public function back(): void
    {
        --$this->number;
    }

    public function fault(string $why): UnusableInput
    {
        return new UnusableInput(\sprintf('%s line %d', $this->name, max(1, $this->number)), $why);
    }
}
